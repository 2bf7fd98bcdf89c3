"""The strips of all plans, and where rules fire: each worked out once, while its plan stays."""

from contextlib import suppress
from decimal import Decimal

from cobblewort.api.deps import Reports, Summary
from cobblewort.api.models import PlanStrip
from cobblewort.core.judging.severity import Severity
from cobblewort.core.text import as_text
from cobblewort.core.verdict.report import Report
from cobblewort.store.plans import BrokenPlan, PlanNotFoundError, PlanStore, StoredPlan


def summaries(plans: PlanStore, reports: Reports) -> list[Summary]:
    """Every plan in short, oldest first; what is broken says why."""
    found = []
    for head in plans.heads():
        summary = reports.summary(head)
        if summary is None:
            with suppress(PlanNotFoundError):  # put away since
                summary = _summary(reports.or_told(plans.read_or_told(head.id)))
                reports.keep_summary(head, summary)
        if summary is not None:
            found.append(summary)
    return found


def _summary(checked: tuple[StoredPlan, Report] | BrokenPlan) -> Summary:
    if isinstance(checked, BrokenPlan):
        return Summary(_broken_strip(checked), {})
    return Summary(_strip(*checked), _fires(checked[1]))


def _fires(report: Report) -> dict[str, Severity]:
    fires: dict[str, Severity] = {}
    for finding in report.findings:  # worst first
        fires.setdefault(finding.rule, finding.severity)
    return fires


def _broken_strip(broken: BrokenPlan) -> PlanStrip:
    return PlanStrip(
        id=broken.id,
        version=broken.version,
        name=broken.name,
        purpose="",
        place="",
        status="planning",
        changed_at=broken.changed_at,
        items=0,
        severity="problem",
        families=[],
        total=Decimal(0),
        currency="EUR",
        worst=as_text(broken.why),
        problems=0,
        tight=0,
        broken=True,
    )


def _strip(stored: StoredPlan, report: Report) -> PlanStrip:
    worst = next((f.sentence for f in report.findings if f.severity != "note"), None)
    return PlanStrip(
        id=stored.id,
        version=stored.version,
        name=stored.plan.name,
        purpose=stored.plan.purpose,
        place=stored.plan.place.name,
        status=stored.plan.status,
        changed_at=stored.changed_at,
        items=sum(line.quantity for line in stored.plan.lines),
        severity=report.severity,
        families=report.families,
        total=report.cost.total,
        currency=report.cost.currency,
        worst=worst,
        problems=report.count("problem"),
        tight=report.count("tight"),
        broken=False,
    )
