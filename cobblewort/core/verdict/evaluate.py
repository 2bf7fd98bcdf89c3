"""The one entry: judge a plan."""

from __future__ import annotations

from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import tell_states
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from cobblewort.core.verdict.judgement import Judgement, judge_kit
from cobblewort.core.verdict.lines import line_reports, next_step
from cobblewort.core.verdict.report import ASPECTS, Report


def evaluate(plan: Plan, catalogue: Catalogue, samples: int = 1) -> Report:
    """Margins and findings of a plan.

    Parameters
    ----------
    plan : Plan
        A valid plan; one that does not work is a report, not an error.
    catalogue : Catalogue
        Where its parts are looked up; parts that the plan carries come first.
    samples : int
        Values a figure: 1 for nominal figures alone, more for bands (256 on the page). Sample 0 is
        nominal and stays out of the percentiles.

    Returns
    -------
    Report
        The same bits for the same input.

    Raises
    ------
    UnknownPartError
        If a line names a part that is nowhere.
    """
    return report_on(judgement_of(plan, catalogue, samples))


def judgement_of(
    plan: Plan, catalogue: Catalogue, samples: int = 1, like: Judgement | None = None
) -> Judgement:
    """The same, before it is laid out as a report: what fixes and candidates compare.

    `like` is the judgement of a plan that this one differs from in little: what it shares is not
    worked out again.
    """
    kit = Kit(plan, catalogue, samples, None if like is None else like.kit)
    return judge_kit(kit, like=like)


def report_on(judgement: Judgement) -> Report:
    """Lay a judgement out for drawings and exports."""
    kit, findings = judgement.kit, judgement.findings
    for margin, check in judgement.judged:
        tell_states(margin, check)
    parts = {
        aspect.id: aspect.report(kit, judgement.margins_of(aspect))
        for aspect in ASPECTS
        if aspect.report is not None
    }
    return Report(
        plan=kit.plan.name,
        samples=kit.samples,
        severity=judgement.severity,
        families=judgement.families,
        margins=judgement.margins,
        findings=findings,
        lines=line_reports(kit, judgement.worst_by_line()),
        next_step=next_step(kit, findings),
        **parts,
    )
