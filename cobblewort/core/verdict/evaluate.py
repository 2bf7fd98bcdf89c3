"""The one entry: judge a plan."""

from __future__ import annotations

from cobblewort.core.errors import InputError
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.margin import with_states
from cobblewort.core.judging.states import states_of
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan
from cobblewort.core.verdict.evaluation import Evaluation, judge_kit
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
    InputError
        If the plan is too large for so many values.
    """
    fitting = samples_that_fit(plan, samples)
    if fitting < samples:
        raise InputError([("samples", f"may be at most {fitting} for a plan of this size")])
    return report_on(evaluation_of(plan, catalogue, samples))


SAMPLE_COUNTS = (1024, 256, 64, 1)
_MOST_VALUES = 1_500_000
"""Pieces times states times samples: what is worked out within a second and some 200 MB."""


def samples_that_fit(plan: Plan, wanted: int) -> int:
    """As many values a figure as are wanted, or as many as a plan of this size bears."""
    size = sum(line.quantity for line in plan.lines) * len(states_of(plan.schedule))
    if size * wanted <= _MOST_VALUES:
        return wanted
    return next(n for n in SAMPLE_COUNTS if size * n <= _MOST_VALUES or n == 1)


def evaluation_of(
    plan: Plan, catalogue: Catalogue, samples: int = 1, like: Evaluation | None = None
) -> Evaluation:
    """The same, before it is laid out as a report: what fixes and candidates compare.

    `like` is the judgement of a plan that this one differs from in little: what it shares is not
    worked out again.
    """
    kit = Kit(plan, catalogue, samples, None if like is None else like.kit)
    return judge_kit(kit, like=like)


def report_on(evaluation: Evaluation) -> Report:
    """Lay a judgement out for drawings and exports."""
    kit, findings = evaluation.kit, evaluation.findings
    parts = {
        aspect.id: aspect.laid_out(kit, evaluation.margins_of(aspect))
        for aspect in ASPECTS
        if aspect.report is not None
    }
    return Report(
        plan=kit.plan.name,
        samples=kit.samples,
        severity=evaluation.severity,
        families=evaluation.families,
        margins=[with_states(margin, check, kit.samples) for margin, check in evaluation.checked],
        findings=findings,
        done=evaluation.done,
        aside=evaluation.aside,
        lines=line_reports(kit, evaluation.worst_by_line()),
        next_step=next_step(kit, findings, evaluation.checked),
        **parts,
    )
