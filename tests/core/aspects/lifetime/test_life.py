"""How long things last, how rooms fill, what copies are for, and what must stay silent."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cobblewort.core.aspects.lifetime.retention import fillings_of
from cobblewort.core.aspects.lifetime.wear import DAYS_A_YEAR, daily_gb, written_of
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.kit import Kit
from cobblewort.core.plans.patch import apply_patch
from cobblewort.core.plans.plan import Transfer
from cobblewort.core.words import ANSWERED_Y
from tests.kits import SMALL, checked, demo, kit, margin, shipped, told, with_part

CALLS: dict[str, Any] = {
    "id": "calls",
    "text": "calls",
    "source": "audio_in",
    "target": "storage",
    "stream_mb_s": 0.768,
    "hours_a_day": 1.2,
    "stays": True,
}
STORE = (*SMALL, "D11", "A12")


def years(**fields: Any) -> float:
    """Of the card of a small kit."""
    (card,) = written_of(Kit(kit(*SMALL, **fields), shipped(), 1))
    return nominal(card.years)


@pytest.mark.parametrize(
    ("endurance_tb", "gb_day", "expected"), [(150, 20, 20.53 / 3), (48, 5, 26.28 / 3)]
)
def test_years_are_endurance_over_what_is_written(
    endurance_tb: float, gb_day: float, expected: float
) -> None:
    """Rated over daily x amplification x 365.25; here the system's own, three times inside."""
    card = {
        "id": "M90",
        "kind": "card",
        "part_class": "memory_card",
        "maker": "m",
        "model": "Card",
        "storage": {"capacity_gb": 32, "endurance_tb": endurance_tb},
    }
    plan = kit("B06", "S01", "M90", retention={"system_gb_day": gb_day})
    (thing,) = written_of(Kit(plan, with_part(**card), 1))
    assert nominal(thing.years) == pytest.approx(expected, rel=1e-3)
    assert expected == pytest.approx(endurance_tb * 1000 / (gb_day * 3 * DAYS_A_YEAR), rel=1e-3)


@settings(max_examples=40, deadline=None)
@given(st.floats(0.01, 50), st.floats(1, 4), st.floats(0.1, 3))
def test_more_writes_never_lengthen_life(gb_day: float, factor: float, stream: float) -> None:
    """Neither the system's nor a flow's."""

    def with_flow(rate: float) -> float:
        return years(
            retention={"system_gb_day": gb_day}, transfers=[{**CALLS, "stream_mb_s": rate}]
        )

    assert years(retention={"system_gb_day": gb_day * factor}) <= years(
        retention={"system_gb_day": gb_day}
    )
    assert with_flow(stream * factor) <= with_flow(stream)


def test_settings_of_the_system_are_ways_out() -> None:
    """Logs in memory are a third of the writes, a read-only system next to none."""
    hub = {"writes": "hub"}
    assert years(retention=hub) < years(retention=hub, settings={"logs_in_memory": True})
    assert years(retention=hub, settings={"read_only_root": True}) == ANSWERED_Y
    plan = kit(*SMALL, retention=hub)
    (finding,) = told(checked(plan), "LIFE-01")
    assert finding.severity == "tight"
    titles = {fix.title.text: fix for fix in propose_fixes(plan, shipped(), finding.id)}
    quiet = next(fix for title, fix in titles.items() if "logs" in title.lower())
    assert told(checked(apply_patch(plan, quiet.patch)), "LIFE-01") == []


@pytest.mark.parametrize(
    ("parts", "retention"),
    [
        (SMALL, {"writes": "logger"}),
        (SMALL, {"writes": "light"}),
        (("B06", "S01", "M05", "K03", "E03"), {"writes": "hub"}),
        (("B06", "S01", "M06", "K03", "E03"), {"writes": "server"}),
    ],
)
def test_a_card_that_is_good_for_it_is_not_scolded(
    parts: tuple[str, ...], retention: dict[str, Any]
) -> None:
    """A plain card in a box that hardly writes; an endurance card under a hub or a server."""
    assert told(checked(kit(*parts, retention=retention), 64), "LIFE-01") == []


def test_each_disk_of_a_mirror_takes_every_byte() -> None:
    """Of a stripe each takes its share."""

    def of_drives(layout: str) -> list[float]:
        transfers = [{**CALLS, "stream_mb_s": 20, "source": "program"}]
        plan = kit(
            "B10",
            "S03",
            "M02",
            "2xD01",
            "2xA12",
            storage_use={"layout": layout},
            transfers=transfers,
        )
        things = written_of(Kit(plan, shipped(), 1))
        return [nominal(t.years) for t in things if t.item.line.role == "storage"]

    assert of_drives("mirror")[0] == pytest.approx(of_drives("stripe")[0] / 2)
    assert len(of_drives("separate")) == 1  # the other one is not written to


def test_a_disk_that_spins_is_not_worn_by_writing() -> None:
    """Nobody rates it so."""
    things = written_of(Kit(kit(*STORE, transfers=[CALLS]), shipped(), 1))
    assert [t.item.line.role for t in things] == ["boot_drive"]


def test_a_fan_lasts_by_its_warmth_and_its_hours() -> None:
    """30,000 h at 40 °C, half as long 13 K warmer and no longer in the cool; 12 h a day last twice
    as long as 24. Two to seven years round the clock: common practice.
    """

    def fan(hours: float, hottest: float) -> float:
        place = {"ambient_min_c": hottest, "ambient_max_c": hottest}
        schedule = [{"name": "on", "hours": hours}]
        report = checked(kit("B10", "S03", "M02", "K05", "E01", place=place, schedule=schedule))
        return next(w.years for w in report.lifetime.wears if w.kind == "turning")

    assert fan(24, 40) == pytest.approx(30000 / 24 / DAYS_A_YEAR, rel=0.01)
    assert fan(24, 53) == pytest.approx(fan(24, 40) / 2, rel=0.01)
    assert fan(24, 10) == pytest.approx(fan(24, 40), rel=0.01)
    assert fan(12, 40) == pytest.approx(2 * fan(24, 40), rel=0.01)


@pytest.mark.parametrize(("wanted", "short"), [(8, False), (30, True)])
def test_nobody_answers_for_a_fan_of_sixty_years(wanted: float, short: bool) -> None:
    """One that turns an hour a day is told as ten years and more; who wants 30 has a spare."""
    day = [
        {"name": "sorting", "hours": 1, "activity": "light"},
        {"name": "off", "hours": 23, "activity": "off"},
    ]
    report = checked(
        kit("B10", "S03", "M02", "K05", "E03", schedule=day, retention={"years": wanted})
    )
    fan = next(wear for wear in report.lifetime.wears if wear.kind == "turning")
    assert (fan.years, fan.most_years) == (10.0, 10.0)
    assert any(f.margin == fan.margin for f in told(report, "LIFE-02")) == short


@pytest.mark.parametrize(
    ("wanted", "hours", "severity"),
    [(5, 24, "ok"), (7, 24, "note"), (7, 12, "ok"), (13, 24, "note"), (14, 24, "tight")],
)
def test_a_hard_disk_lasts_by_its_hours(wanted: float, hours: float, severity: str) -> None:
    """60,000 h (40,000 to 90,000) are 6.8 years round the clock, whatever the room is like: five
    years are no word worth (from memory: half of all disks run for more than six).
    """
    day = [{"name": "on", "hours": hours}, {"name": "off", "hours": 24 - hours, "activity": "off"}]
    schedule = [phase for phase in day if phase["hours"]]
    plan = kit(*SMALL, "A12", "D11", schedule=schedule, retention={"years": wanted})
    report = checked(plan, 64)
    found = margin(report, "LIFE-02:D11#1.mechanism")
    assert found.value == pytest.approx(min(10, 60000 / hours / DAYS_A_YEAR), rel=0.001)
    assert found.severity == severity
    told_of = [f.sentence.text for f in told(report, "LIFE-02") if f.margin == found.id]
    assert bool(told_of) == (severity != "ok")
    assert all(" 6.8 years at 24 h a day" in text for text in told_of)


@pytest.mark.parametrize(
    ("rate", "when_full", "told_of"),
    [
        (0.768, "stops", False),
        (8, "stops", True),
        (8, "deletes_oldest", False),
    ],
)
def test_what_is_full_before_anybody_looks(rate: float, when_full: str, told_of: bool) -> None:
    """A note within a month, where it stops then."""
    transfers = [{**CALLS, "stream_mb_s": rate}]
    plan = kit(
        "B06", "S01", "M06", "X07", transfers=transfers, storage_use={"when_full": when_full}
    )
    assert bool(told(checked(plan), "LIFE-03")) == told_of


def test_when_it_is_full() -> None:
    """249 GB at 3.3 GB a night: 75 nights, as counted by hand."""
    filling = checked(demo("bat-recorder")).lifetime.filling
    assert filling.day_gb == pytest.approx(0.768 * 3.6 * 1.2)
    assert filling.days == pytest.approx(249.4 / 3.318, rel=0.01)
    assert daily_gb(Transfer.model_validate(CALLS), ()) == filling.day_gb


def test_the_boot_drive_fills_apart_from_the_data() -> None:
    """Records on the card, calls on the disk: each by its own room; a stream without hours runs as
    long as the phase that it is named after.
    """
    night = [{"name": "night", "hours": 10, "activity": "light"}]
    calls = {**CALLS, "hours_a_day": None, "during": "night", "target": "storage"}
    log = {"id": "log", "text": "a log", "source": "program", "target": "boot_drive"}
    flows = [calls, {**log, "amount_gb": 2, "runs_a_day": 1, "stays": True}]
    plan = kit("B06", "S01", "M02", "D11", "A12", "X07", transfers=flows, schedule=night)
    data, boot = fillings_of(Kit(plan, shipped(), 1))
    assert data.day_gb == pytest.approx(0.768 * 3.6 * 10)
    assert (boot.of_boot, boot.day_gb) == (True, 2)
    assert boot.days == pytest.approx(32 * 0.99 / 2)
    (note,) = told(checked(plan), "LIFE-03")
    assert note.sentence.text.startswith("The boot drive is full after 16 days")


@pytest.mark.parametrize(("years", "severity"), [(2, ""), (5, "note"), (20, "tight")])
def test_a_store_that_is_full_before_its_years(years: float, severity: str) -> None:
    """1 TB that grows by 20 GB a month is full after four years."""
    use = {"growth_gb_month": 20}
    report = checked(
        kit("B06", "S01", "M02", "D11", "A12", storage_use=use, retention={"years": years})
    )
    assert [f.severity for f in told(report, "LIFE-03")] == ([severity] if severity else [])


FAR = {"id": "far", "text": "a friend's", "place": "elsewhere", "medium": "disk"}
NEAR = {"id": "near", "text": "the study", "place": "same_house", "medium": "card"}


@pytest.mark.parametrize(
    ("copies", "says"),
    [
        ([], "in one place"),
        ([NEAR], "none elsewhere"),
        ([FAR], "only one is left"),
        ([FAR, {**FAR, "id": "far-2"}], "one kind of drive"),
        ([FAR, NEAR], ""),
    ],
)
def test_three_copies_two_media_one_elsewhere(copies: list[dict[str, Any]], says: str) -> None:
    """A note on what is missing; nothing once it is there."""
    retention = {"replaceable": False, "backups": copies}
    found = told(checked(kit(*STORE, retention=retention)), "LIFE-04")
    assert [says in f.sentence.text for f in found] == ([True] if says else [])
    assert all(f.severity == "note" for f in found)


def test_an_array_is_no_back_up_and_replaceable_data_need_none() -> None:
    """Said once, with the array; silent where everything can be fetched again."""
    mirror = {"storage_use": {"layout": "mirror"}}
    parts = (*SMALL, "2xD11", "2xA12")
    (finding,) = told(checked(kit(*parts, **mirror, retention={"replaceable": False})), "LIFE-04")
    assert finding.sentence.text.startswith("An array is not a")
    assert told(checked(kit(*parts, **mirror)), "LIFE-04") == []


IN_KIT = {"id": "twin", "text": "the other disk", "place": "in_kit", "medium": "disk"}


@pytest.mark.parametrize(
    ("layout", "disks", "severities"),
    [("mirror", 2, ["tight"]), ("separate", 1, ["tight"]), ("separate", 2, ["note"])],
)
def test_a_mirror_is_not_taken_for_a_backup(layout: str, disks: int, severities: list[str]) -> None:
    """A second disk that is used by itself is one, though fire destroys both: a note on that."""
    plan = kit(
        *SMALL,
        f"{disks}xD11",
        f"{disks}xA12",
        storage_use={"layout": layout},
        retention={"replaceable": False, "backups": [IN_KIT]},
    )
    report = checked(plan)
    assert [f.severity for f in told(report, "LIFE-04")] == severities
    counted = report.lifetime.backups.count
    assert counted == (2 if severities == ["note"] else 1)


@pytest.mark.parametrize(("mb_s", "severities"), [(1.5, []), (1.9, ["note"]), (4.0, ["tight"])])
def test_a_hard_disk_that_moves_more_than_it_is_made_for(
    mb_s: float, severities: list[str]
) -> None:
    """47, 60 and 126 TB in 365.25 days, of 55: a note, tight below half."""
    stream = {**CALLS, "source": "network", "stream_mb_s": mb_s, "hours_a_day": 24}
    report = checked(kit(*STORE, transfers=[stream], storage_use={"when_full": "deletes_oldest"}))
    assert [f.severity for f in told(report, "LIFE-07")] == severities
    worked = margin(report, "LIFE-07:D11#1")
    assert worked.value == pytest.approx(mb_s * 86400 * 365.25 / 1e6)


def test_a_note_on_passwords_goes_with_a_tick() -> None:
    """And is silent where no network is, or the purpose reminds of it itself."""
    requirements = [{"id": "net", "text": "net", "function": "ethernet"}]
    plan = kit(*SMALL, requirements=requirements)
    (finding,) = told(checked(plan), "LIFE-05")
    assert told(checked(plan.model_copy(update={"done": (finding.id,)})), "LIFE-05") == []
    alone = kit(*SMALL, requirements=requirements, place={"network": "none"})
    assert told(checked(alone), "LIFE-05") == []
    reminded = kit(
        *SMALL, requirements=requirements, reminders=[{"id": "password", "text": "Change it."}]
    )
    assert told(checked(reminded), "LIFE-05") == []


def test_one_image_for_one_kit_has_no_secrets_to_lose() -> None:
    """Several copies have."""
    image = {"name": "Slim image", "card_gb": 4, "memory_gb": 0.5}
    assert told(checked(kit(*SMALL, image=image)), "LIFE-06") == []
    assert told(checked(kit(*SMALL, image=image, copies=3)), "LIFE-06") != []


def test_upkeep_follows_the_kit() -> None:
    """Fans want dust taken out, oftener where there is more of it; copies are made and tried."""

    def maintenance(*parts: str, **fields: Any) -> dict[str, int]:
        return {u.id: u.every_days for u in checked(kit(*parts, **fields)).lifetime.maintenance}

    fan = ("B10", "S03", "M02", "K05", "E03")
    assert maintenance(*fan)["dust"] == 360
    assert maintenance(*fan, place={"dust": "much"})["dust"] == 90
    assert "dust" not in maintenance(*SMALL)
    copies = {"replaceable": False, "backups": [FAR]}
    assert maintenance(*STORE, retention=copies).keys() >= {"copy-far", "restore", "image"}


def test_a_margin_shows_the_band_it_is_known_in() -> None:
    """Rules of thumb are wide: three years nominal where three are wanted hold in too few of the
    draws, and the same card under small writes each minute in fewer yet.
    """
    least = {"writes": "hub", "years": 1}
    sure = margin(checked(kit(*SMALL, retention=least), 256), "LIFE-01:M02#1")
    assert sure.severity == "ok"
    wanting = margin(checked(kit(*SMALL, retention={**least, "years": 2.3}), 256), "LIFE-01:M02#1")
    assert wanting.spare_p05 is not None
    assert wanting.spare_p05 < 0 < wanting.spare
    assert (wanting.severity, (wanting.holds_share or 0) < 0.7) == ("tight", True)
    line = {"id": "line", "text": "a line", "source": "program", "target": "storage"}
    minutely = [{**line, "amount_gb": 0.00005, "runs_a_day": 1440}]
    worn = margin(checked(kit(*SMALL, retention=least, transfers=minutely), 256), "LIFE-01:M02#1")
    assert worn.value < sure.value
    assert (worn.spare_p05 or 1) < (sure.spare_p05 or 0)


def test_cards_for_an_image() -> None:
    """Those that hold it, the smallest and the one with most room for its price marked."""
    image = {"name": "Hub", "card_gb": 16, "memory_gb": 1}
    cards = checked(kit(*SMALL, image=image, retention={"writes": "hub"})).lifetime.cards
    by_id = {card.part: card for card in cards}
    assert set(by_id) == {"M01", "M02", "M03", "M04", "M05", "M06", "M08"}
    assert [card.part for card in cards if card.smallest] == ["M01"]
    (sweet,) = (card for card in cards if card.sweet)
    assert sweet.price_a_gb == min(card.price_a_gb for card in cards)
    assert by_id["M02"].use
    assert (by_id["M05"].years or 0) > 3 > (by_id["M02"].years or 0)
    larger = {**image, "card_gb": 100}
    assert "M02" not in {c.part for c in checked(kit(*SMALL, image=larger)).lifetime.cards}
