"""A kit as the rules find it: margins, findings and rulers, before anything is laid out."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from cobblewort.core.aspects.safety.aspect import ASPECT as SAFETY
from cobblewort.core.judging.aspect import Aspect
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import Check, Margin
from cobblewort.core.judging.rules import RULES, Outcome, Rule
from cobblewort.core.judging.severity import SEVERITY_RANK, Severity
from cobblewort.core.verdict.report import RULERS, FamilyReport, FamilyWorstCase, rules_in_order


@dataclass(slots=True, frozen=True)
class Evaluation:
    """What the rules have to say about a kit; `findings` stand worst first.

    `outcomes` holds what each rule said, by its id. `done` are notes that the plan's owner has
    ticked, `aside` what every kit of its kind has to mind; neither is among the findings.
    """

    kit: Kit
    outcomes: dict[str, Outcome]
    findings: list[Finding]
    done: list[Finding]
    aside: list[Finding]

    @property
    def checked(self) -> list[tuple[Margin, Check]]:
        """Each margin with the check that it was made of."""
        return [pair for outcome in self.outcomes.values() for pair in outcome.checked]

    @property
    def margins(self) -> list[Margin]:
        """How the kit stands to each limit."""
        return [margin for margin, _ in self.checked]

    def margins_of(self, aspect: Aspect) -> list[Margin]:
        """Those on its ruler."""
        return [margin for margin in self.margins if margin.family == aspect.family]

    @property
    def severity(self) -> Severity:
        """The worst there is; a caution alone leaves a kit sound, as there is one to every kit."""
        return next((f.severity for f in self.findings if not _is_caution(f)), "ok")

    @property
    def families(self) -> list[FamilyReport]:
        """All rulers, in their order."""
        return [
            _family(
                ruler,
                self.margins_of(ruler),
                [finding for finding in self.findings if finding.family == ruler.id],
            )
            for ruler in RULERS
        ]

    @property
    def severities(self) -> dict[str, Severity]:
        """Those of all rulers."""
        worst: dict[str, Severity] = {}
        for finding in self.findings:  # worst first
            worst.setdefault(finding.family, finding.severity)
        return {ruler.id: worst.get(ruler.id, "ok") for ruler in RULERS}

    def finding(self, finding_id: str) -> Finding | None:
        """The finding with this id, or None."""
        return next((f for f in self.findings if f.id == finding_id), None)

    def margin(self, margin_id: str) -> Margin | None:
        """The margin with this id, or None."""
        return next((m for m in self.margins if m.id == margin_id), None)

    def count(self, severity: Severity) -> int:
        """How many findings have this severity."""
        return sum(f.severity == severity for f in self.findings)

    def worst_by_line(self) -> dict[str, Severity]:
        """The worst finding that names each line; lines without one are not in it."""
        worst: dict[str, Severity] = defaultdict(lambda: "ok")
        for finding in self.findings:
            if _is_caution(finding):
                continue
            for line in finding.lines:
                if SEVERITY_RANK[finding.severity] > SEVERITY_RANK[worst[line]]:
                    worst[line] = finding.severity
        return worst


def _is_caution(finding: Finding) -> bool:
    """Whether a finding only reminds of what could hurt, whatever the kit is like."""
    return finding.family == SAFETY.id and finding.severity == "note"


def judge_kit(
    kit: Kit, only: Callable[[Rule], bool] | None = None, like: Evaluation | None = None
) -> Evaluation:
    """Ask every rule, or only some of them, for a search that looks at one thing at a time.

    Of `like`, the judgement of the kit that this one was made like, is taken over what each rule
    said that reads nothing in which the two differ.
    """
    outcomes: dict[str, Outcome] = {}
    known: Mapping[str, Outcome] = {} if like is None else like.outcomes
    for rule in rules_in_order():
        if only is None or only(rule):
            before = known.get(rule.id)
            if before is None or not kit.still(rule.inputs.reads):
                before = rule.judge(kit)
            outcomes[rule.id] = before
    kit.settle()
    findings = [finding for outcome in outcomes.values() for finding in outcome.findings]
    findings.sort(key=lambda f: (-SEVERITY_RANK[f.severity], f.rule, f.id))
    ticked = set(kit.plan.done)
    left: list[Finding] = []
    done: list[Finding] = []
    aside: list[Finding] = []
    for finding in findings:
        of_all = finding.severity == "note" and RULES[finding.rule].aside
        is_done = finding.severity == "note" and finding.id in ticked
        (aside if of_all else done if is_done else left).append(finding)
    return Evaluation(kit, outcomes, left, done, aside)


def _family(ruler: Aspect, own: list[Margin], told: list[Finding]) -> FamilyReport:
    """One ruler, from the margins and findings of its family."""
    worst = min(own, key=_most_to_tell, default=None)
    severity: Severity = told[0].severity if told else "ok"
    checked = bool(own or told) or not ruler.missing
    finding = told[0].id if told else None
    why_not = "" if checked else ruler.missing
    measured = max((SEVERITY_RANK[margin.severity] for margin in own), default=0)
    if worst is None or (severity in ("problem", "tight") and measured < SEVERITY_RANK[severity]):
        return FamilyReport(
            ruler.id,
            ruler.label,
            checked,
            severity,
            severity,
            None,
            finding,
            None,
            "",
            None,
            None,
            None,
            None,
            why_not,
        )
    # What keeps nine tenths of its speed is at its limit, not short of it: that nobody minds.
    spare, share = worst.spare, worst.ruler_share
    if worst.planned == "ok":
        spare, share = max(0.0, spare), max(0.0, share)
    of_it = (f.id for f in told if f.margin == worst.id and f.severity == severity)
    finding = next(of_it, finding)  # the bar and the sentence beside it are of one thing
    return FamilyReport(
        ruler.id,
        ruler.label,
        checked,
        severity,
        worst.planned,
        worst.id,
        finding,
        spare,
        worst.unit,
        share,
        worst.ruler_p05,
        worst.ruler_p95,
        _worst_case(own),
        why_not,
    )


def _most_to_tell(margin: Margin) -> tuple[int, float, float, float]:
    """The worst first; of bars that are all full the one that may be none, then the least."""
    low = margin.ruler_share if margin.ruler_p05 is None else margin.ruler_p05
    return -SEVERITY_RANK[margin.planned], margin.ruler_share, low, margin.spare


def _worst_case(own: list[Margin]) -> FamilyWorstCase | None:
    """The tightest margin of a family with everything at once."""
    tightest = min(
        (margin for margin in own if margin.worst_case is not None),
        key=lambda margin: margin.worst_case.ruler_share if margin.worst_case else 0.0,
        default=None,
    )
    if tightest is None or tightest.worst_case is None:
        return None
    return FamilyWorstCase(
        tightest.id,
        tightest.label,
        tightest.worst_case.spare,
        tightest.unit,
        tightest.worst_case.ruler_share,
    )
