"""The one entry: judge a plan."""

from __future__ import annotations

import cobblewort.core.cost.rules
import cobblewort.core.fit.pin_rules
import cobblewort.core.fit.reach_rules
import cobblewort.core.fit.rules
import cobblewort.core.fit.stack_rules
import cobblewort.core.fit.way_out_rules
import cobblewort.core.heat.rules
import cobblewort.core.needs.rules
import cobblewort.core.noise.rules
import cobblewort.core.power.place_rules
import cobblewort.core.power.rules
import cobblewort.core.safety.rules
import cobblewort.core.software.rules  # noqa: F401  the imports fill the registry
from cobblewort.core.catalogue import Catalogue
from cobblewort.core.judgement import Judgement, judge_kit
from cobblewort.core.kit import Kit
from cobblewort.core.margin import tell_states
from cobblewort.core.plan import Plan
from cobblewort.core.report import Report
from cobblewort.core.reporting import (
    cost_report,
    finding_reports,
    fit_report,
    heat_report,
    line_reports,
    need_reports,
    next_step,
    noise_report,
    supply_report,
)


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
    kit, margins, findings = judgement.kit, judgement.margins, judgement.findings
    for margin, check in judgement.judged:
        tell_states(margin, check)
    return Report(
        plan=kit.plan.name,
        samples=kit.samples,
        severity=judgement.severity,
        families=judgement.families,
        margins=margins,
        findings=finding_reports(findings),
        needs=need_reports(kit),
        lines=line_reports(kit, judgement.worst_by_line()),
        fit=fit_report(kit, margins),
        supply=supply_report(kit, margins),
        heat=heat_report(kit),
        cost=cost_report(kit),
        noise=noise_report(kit),
        next_step=next_step(kit, findings),
    )
