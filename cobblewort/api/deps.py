"""What the routes share: stores, the catalogue in use, and the version a write names."""

import logging
import re
from dataclasses import dataclass
from threading import Lock
from typing import Annotated, Any

from fastapi import Depends, FastAPI, Header, Query, Request

from cobblewort.api.models import PlanStrip
from cobblewort.core.errors import InputError
from cobblewort.core.judging.severity import Severity
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Activity, Plan, Temperature
from cobblewort.core.plans.what_if import what_if
from cobblewort.core.verdict.evaluate import evaluation_of, report_on, samples_that_fit
from cobblewort.core.verdict.evaluation import Evaluation
from cobblewort.core.verdict.report import Report
from cobblewort.formats.shipped import catalogue_with
from cobblewort.store.parts import PartStore
from cobblewort.store.plans import BrokenPlan, Head, PlanStore, StoredPlan

PAGE_SAMPLES = 256
_MOST_REPORTS, _MOST_SUMMARIES = 32, 4000
_LOG = logging.getLogger("cobblewort")


@dataclass(slots=True, frozen=True)
class Summary:
    """A plan in short: its strip, and how much each rule that fires in it matters at most."""

    strip: PlanStrip
    fires: dict[str, Severity]


class Reports:
    """Reports of stored plans as they stand, kept while neither plan nor catalogue changes.

    The list of plans and the rule book look at every plan, and the page looks at one again and
    again. Somebody at work changes one thing at a time, so each report is worked out like the last.
    """

    def __init__(self, catalogue: Catalogue) -> None:
        self.catalogue = catalogue
        self._kept: dict[Head, Report] = {}
        self._summaries: dict[Head, Summary] = {}
        self._last: Evaluation | None = None
        self._lock = Lock()

    def of(self, stored: StoredPlan) -> Report:
        """The report of a plan with bands, worked out or as it was kept."""
        with self._lock:
            report = self._kept.get(stored.head)
        if report is None:
            report = self.work_out(stored.plan)
        self.keep(stored, report)
        return report

    def summary(self, head: Head) -> Summary | None:
        """What was kept in short of a plan as it stands, None where nothing was."""
        with self._lock:
            return self._summaries.get(head)

    def keep_summary(self, head: Head, summary: Summary) -> None:
        """Keep a plan in short; the oldest makes room."""
        with self._lock:
            _put(self._summaries, head, summary, _MOST_SUMMARIES)

    def or_told(self, stored: StoredPlan | BrokenPlan) -> tuple[StoredPlan, Report] | BrokenPlan:
        """A plan with its report; one that cannot be judged is told, and stops no other."""
        if isinstance(stored, BrokenPlan):
            return stored
        try:
            return stored, self.of(stored)
        except InputError as error:
            why = f"The plan cannot be checked. {error}"
        except Exception:
            _LOG.exception("plan %s cannot be checked", stored.id)
            why = "The plan cannot be checked. This is a fault of the program, not of your plan."
        return BrokenPlan(stored.id, stored.version, stored.plan.name, why, stored.changed_at)

    def work_out(self, plan: Plan) -> Report:
        """The report of any plan, with bands; what it shares with the last is taken from there."""
        samples = samples_that_fit(plan, PAGE_SAMPLES)
        with self._lock:
            last = self._last
        evaluation = evaluation_of(plan, self.catalogue, samples, like=last)
        with self._lock:
            self._last = evaluation
        return report_on(evaluation)

    def keep(self, stored: StoredPlan, report: Report) -> None:
        """Keep a report that was worked out before its plan was stored; the oldest makes room."""
        with self._lock:
            _put(self._kept, stored.head, report, _MOST_REPORTS)


def _put(kept: dict[Head, Any], head: Head, value: object, most: int) -> None:
    kept.pop(head, None)
    kept[head] = value
    while len(kept) > most:
        del kept[next(iter(kept))]


_WRITING = Lock()
"""Held while the catalogue in use is made anew: of parts written at once none is missed."""


def read_catalogue(app: FastAPI) -> None:
    """Read the catalogue from the store, at the start."""
    stored = PartStore(app.state.database)
    with _WRITING:
        parts = stored.all()
        app.state.catalogue, app.state.broken_parts = catalogue_with(
            [part.document for part in parts],
            stored.older(),
            [part.id for part in parts if part.away],
        )
        app.state.reports = Reports(app.state.catalogue)


def renew_part(app: FastAPI, part_id: str) -> Catalogue:
    """Take a part of the catalogue in use from the store, after it was written there."""
    stored = PartStore(app.state.database)
    with _WRITING:
        catalogue: Catalogue = app.state.catalogue
        part = stored.get(part_id)
        catalogue = catalogue.renewed(part.document, stored.older_of(part_id), away=part.away)
        app.state.catalogue, app.state.reports = catalogue, Reports(catalogue)
        app.state.broken_parts.pop(part_id, None)
    return catalogue


# What only hands something on is async: no thread is woken for it, four times a request.


async def get_plans(request: Request) -> PlanStore:
    """The store of plans."""
    return PlanStore(request.app.state.database)


async def get_parts(request: Request) -> PartStore:
    """The store of parts."""
    return PartStore(request.app.state.database)


async def get_catalogue(request: Request) -> Catalogue:
    """The catalogue in use."""
    catalogue: Catalogue = request.app.state.catalogue
    return catalogue


async def get_reports(request: Request) -> Reports:
    """The reports that are kept."""
    reports: Reports = request.app.state.reports
    return reports


async def named_version(
    if_match: Annotated[
        str, Header(description='The version that a change was made from, as `"3"` or the ETag.')
    ],
) -> int:
    """The version in an If-Match header. Raises InputError when it is no version."""
    found = re.fullmatch('"?([0-9]{1,18})(-[0-9a-f]{16})?"?', if_match.strip())
    if found is None:
        raise InputError([("If-Match", f'must name a version such as "3" (got {if_match!r})')])
    return int(found[1])


Plans = Annotated[PlanStore, Depends(get_plans)]
Parts = Annotated[PartStore, Depends(get_parts)]
CatalogueInUse = Annotated[Catalogue, Depends(get_catalogue)]
Kept = Annotated[Reports, Depends(get_reports)]
Version = Annotated[int, Depends(named_version)]


@dataclass(slots=True)
class WhatIf:
    """Assumptions to judge a plan under; they are not stored."""

    ambient_c: float | None
    activity: Activity | None


async def assumptions(
    ambient_c: Annotated[
        Temperature | None,
        Query(description="Highest ambient to assume instead of the plan's. [°C]"),
    ] = None,
    activity: Annotated[
        Activity | None, Query(description="Load to assume in every phase of the day.")
    ] = None,
) -> WhatIf:
    """What a request assumes."""
    return WhatIf(ambient_c, activity)


Assumed = Annotated[WhatIf, Depends(assumptions)]


def assumed_plan(plan_id: str, plans: Plans, assumed: Assumed) -> Plan:
    """The stored plan under the assumptions of the request."""
    return what_if(plans.get(plan_id).plan, assumed.ambient_c, assumed.activity)


AssumedPlan = Annotated[Plan, Depends(assumed_plan)]
