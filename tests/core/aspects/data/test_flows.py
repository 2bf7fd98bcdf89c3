"""Ways of flows, what is said of them, and what must stay silent."""

from __future__ import annotations

from typing import Any

import pytest

from cobblewort.core.aspects.data.model import of as data_of
from cobblewort.core.changing.fixes import propose_fixes
from cobblewort.core.errors import InputError
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.kit import Kit
from cobblewort.core.plans.patch import SetFields, apply_patch
from cobblewort.core.plans.plan import Plan, Transfer
from tests.kits import checked, demo, kit, margin, shipped, told, with_part

COPIES: dict[str, Any] = {
    "id": "copies",
    "text": "copies",
    "source": "network",
    "target": "storage",
    "amount_gb": 20,
}
STORE = ("B06", "S01", "M02", "D09", "A12", "E01")


def transfer(**fields: Any) -> list[dict[str, Any]]:
    """One flow."""
    return [{**COPIES, **fields}]


@pytest.mark.parametrize(
    ("within", "severity"),
    [(4, "ok"), (2.7, "ok"), (2.6, "tight"), (1.9, "tight"), (1.7, "problem")],
)
def test_a_deadline_is_a_margin(within: float, severity: str) -> None:
    """20 GB at 112 MB/s take 3 minutes: a tenth more than wished is nothing, two thirds more
    stops it.
    """
    report = checked(kit(*STORE, transfers=transfer(within_min=within)))
    found = margin(report, "DATA-01:copies")
    assert (found.unit, found.limit_kind) == ("min", "max")
    assert found.value == pytest.approx(2.98, abs=0.05)
    assert found.severity == severity


def test_the_sentence_names_the_neck() -> None:
    """And who shares it."""
    both = [
        {**COPIES, "within_min": 20, "during": "evening"},
        {**COPIES, "id": "more", "text": "more of it", "during": "evening"},
    ]
    (finding,) = told(checked(kit("B04", "S06", "M02", "D09", "A12", transfers=both)), "DATA-01")
    assert (
        "min. Bottleneck: Ethernet (100 Mbit/s), shared with “more of it”" in finding.sentence.text
    )


def test_without_a_deadline_nothing_is_asked() -> None:
    """A slow copy that nobody waits for is no snag."""
    report = checked(kit("B04", "S06", "M02", "D09", "A12", transfers=transfer()))
    assert told(report, "DATA-01") == []
    ruler = next(f for f in report.families if f.id == "data")
    assert (ruler.checked, ruler.why_not) == (False, "no rate required")


def test_a_stream_alone_and_with_everything_at_once() -> None:
    """A stream that others crowd out only with everything at once is tight, as it drops data."""
    stream = {
        "id": "mics",
        "text": "microphones",
        "source": "audio_in",
        "target": "storage",
        "stream_mb_s": 14,
        "hours_a_day": 1,
    }
    alone = checked(kit("B04", "S06", "M02", "X07", "D09", "A12", transfers=[stream]))
    assert told(alone, "DATA-01") == []
    crowd = [stream, *({**COPIES, "id": f"copy-{n}", "text": f"copy {n}"} for n in range(3))]
    crowded = checked(kit("B04", "S06", "M02", "X07", "D09", "A12", transfers=crowd))
    (finding,) = told(crowded, "DATA-01")
    assert (finding.severity, "the worst case" in finding.sentence.text) == ("tight", True)


def test_a_stream_that_is_kept_up_with_has_its_buffer() -> None:
    """What a card writes late while it tidies up: two seconds at worst, of 0.77 MB/s."""
    report = checked(demo("bat-recorder"))
    (calls,) = (m for m in report.data.situations[0].moved if m.transfer == "calls")
    assert calls.buffer_mb == pytest.approx(1.54, abs=0.01)
    assert calls.bottleneck is None


@pytest.mark.parametrize(("store", "mb_s"), [(("M02",), 2.4), (("M02", "A12", "D15"), 35)])
def test_small_pieces_go_by_the_random_rate(store: tuple[str, ...], mb_s: float) -> None:
    """600 pieces of 4 kB a second of a card; 10,000 of a solid-state drive, which USB 2 could not
    carry: the bus holds it back.
    """
    rows = {**transfer()[0], "source": "program", "file_mb": 0.004, "amount_gb": 0.5}
    (at,) = checked(kit("B04", "S06", *store, transfers=[rows])).data.situations[0].moved
    assert at.rate_mb_s == pytest.approx(mb_s, rel=0.02)
    large = {**rows, "file_mb": 0.1}
    (alone,) = checked(kit("B04", "S06", *store, transfers=[large])).data.situations[0].moved
    assert "small pieces" in at.links[-1].label
    assert "small pieces" not in alone.links[-1].label


def test_a_database_stream_that_a_card_cannot_keep_up_with() -> None:
    """3 MB/s in pieces of 4 kB are more than a card writes, and little for it in one piece."""
    rows = {
        "id": "rows",
        "text": "measurements",
        "source": "program",
        "target": "boot_drive",
        "stream_mb_s": 3,
        "hours_a_day": 1,
    }
    in_one = checked(kit("B04", "S06", "M02", transfers=[rows]))
    in_pieces = checked(kit("B04", "S06", "M02", transfers=[{**rows, "file_mb": 0.004}]))
    assert told(in_one, "DATA-01") == []
    assert [f.severity for f in told(in_pieces, "DATA-01")] == ["problem"]


def test_a_picture_that_is_sent_is_seen_later() -> None:
    """Taken in, encoded, sent by wire and shown: 33, 30, 3 and 50 ms, from memory."""
    stream = {
        "id": "view",
        "text": "view",
        "source": "camera",
        "target": "network",
        "stream_mb_s": 1,
    }
    (at,) = checked(kit("B06", "S01", "M02", "X28", transfers=[stream])).data.situations[0].moved
    assert at.lag is not None
    assert at.lag.typical_s == pytest.approx(0.116)
    (kept,) = checked(demo("bat-recorder")).data.situations[0].moved[:1]
    assert kept.lag is None


@pytest.mark.parametrize(
    ("file_system", "read_elsewhere", "notes"),
    [("native", False, 0), ("native", True, 1), ("checksummed", True, 1), ("exchange", True, 0)],
)
def test_a_disk_that_other_computers_read(
    file_system: str, read_elsewhere: bool, notes: int
) -> None:
    """A note with the way to settle it; nothing where it stays in its kit."""
    use = {"file_system": file_system, "read_elsewhere": read_elsewhere}
    report = checked(kit("B06", "S01", "M02", "D11", "A12", storage_use=use))
    assert len(told(report, "DATA-06")) == notes


def test_removing_the_neck_is_worth_something() -> None:
    """On a 100 Mb/s board with a shared bus: first the bus, then the wire."""
    report = checked(kit("B04", "S06", "M02", "D09", "A12", transfers=transfer()))
    (at,) = report.data.situations[0].moved
    rates = [at.rate_mb_s, *(better.rate_mb_s for better in at.betters)]
    assert rates == sorted(rates)
    assert len(rates) == 3
    kinds = {link.id: link.kind for link in at.links}
    assert kinds[at.bottleneck or ""] == "ethernet"


def test_what_has_no_way_is_told_and_not_judged() -> None:
    """No network at its place; nothing that hears; no room on the card for a copy."""

    def why(**fields: Any) -> str:
        plan = kit("B06", "S01", "M02", **fields)
        return checked(plan).data.no_path[0].why_not

    assert why(transfers=transfer(), place={"network": "none"}) == "the location has no network"
    assert "not in the kit" in why(transfers=transfer(source="audio_in"))
    assert "has too" in why(transfers=transfer(amount_gb=500))


def test_a_router_uses_a_radio_for_each_network() -> None:
    """One radio for both carries each byte twice; a second one does not share it."""
    through = transfer(source="wifi", target="access_point")
    one = data_of(Kit(kit("B06", "S01", "M02", transfers=through), shipped(), 1)).situations[0]
    two = data_of(Kit(kit("B06", "S01", "M02", "X10", transfers=through), shipped(), 1)).situations[
        0
    ]
    assert len(one.moved[0].route.load) == 1
    items = {link.item.id for link in two.moved[0].route.links if link.kind == "wifi"}
    assert items == {"B06#1", "X10#1"}


def test_a_way_out_is_another_socket() -> None:
    """A drive in a USB 2 socket of a board that has USB 3 is moved there."""
    plan = kit(*STORE, transfers=transfer(within_min=6))
    pinned = plan.line("A12").model_copy(update={"pins": {"1.usb": "B06#1.usb3"}})
    lines = tuple(pinned if line.id == "A12" else line for line in plan.lines)
    slow = plan.model_copy(update={"lines": lines})
    (finding,) = told(checked(slow), "DATA-01")
    fixes = propose_fixes(slow, shipped(), finding.id)
    assert any(change.op == "pin" for change in fixes[0].patch)
    assert told(checked(apply_patch(slow, fixes[0].patch)), "DATA-01") == []


def test_a_faster_slot_is_offered_with_the_test_that_earns_it() -> None:
    """The certified rate counts; what lies beyond it is a setting, and tight until it is soaked."""
    least = transfer(source="storage", target="program", least_mb_s=600)
    plan = kit("B10", "S03", "M02", "K05", "E01", "A02", "D06", transfers=least)
    (finding,) = told(checked(plan), "DATA-01")
    titles = {fix.title.text: fix for fix in propose_fixes(plan, shipped(), finding.id)}
    fix = titles["Run the drive slot above its certified rate"]
    after = checked(apply_patch(plan, fix.patch))
    assert told(after, "DATA-01") == []
    assert [f.severity for f in told(after, "SOFT-06")] == ["tight"]


@pytest.mark.parametrize(
    ("layout", "drives", "stops"),
    [
        ("mirror", "D09", True),
        ("mirror", "2xD09", False),
        ("parity", "2xD09", True),
        ("parity", "3xD09", False),
        ("striped_mirrors", "3xD09", True),
        ("separate", "D09", False),
    ],
)
def test_a_layout_wants_its_disks(layout: str, drives: str, stops: bool) -> None:
    """Told where the kit has too few, with another disk and another layout as ways out."""
    plan = kit("B06", "S01", "M02", drives, "3xA12", storage_use={"layout": layout})
    found = told(checked(plan), "DATA-02")
    assert bool(found) == stops
    if stops:
        titles = [fix.title.text for fix in propose_fixes(plan, shipped(), found[0].id)]
        assert titles


def test_room_is_that_of_the_array() -> None:
    """Two terabytes as labels count are one in a mirror, which survives a disk."""
    requirements = [
        {"id": "room", "text": "two terabytes", "function": "storage", "at_least": 1500},
        {"id": "safe", "text": "a disk may fail", "condition": "disk_failure"},
    ]
    parts = ("B06", "S01", "M02", "2xD11", "2xA12", "H03")
    apart = {n.id: n.status for n in checked(kit(*parts, requirements=requirements)).purpose}
    mirrored = checked(
        kit(*parts, requirements=requirements, storage_use={"layout": "mirror"})
    ).purpose
    assert apart == {"room": "met", "safe": "not_met"}
    assert {n.id: n.status for n in mirrored} == {"room": "not_met", "safe": "met"}
    assert next(n.have for n in mirrored if n.id == "room") == 1000


def test_both_schools_stand_side_by_side() -> None:
    """Four disks: what each layout holds, survives, writes and costs."""
    report = checked(
        kit("B10", "S03", "M02", "4xD09", "4xA12", "H03", storage_use={"layout": "parity"})
    )
    by_name = {layout.layout: layout for layout in report.data.layouts}
    parity, mirrors = by_name["parity"], by_name["striped_mirrors"]
    assert (parity.chosen, mirrors.chosen) == (True, False)
    assert parity.usable_gb > mirrors.usable_gb
    assert (parity.write_mb_s or 0) < (mirrors.write_mb_s or 0)
    assert (parity.settle_h or 0) >= (mirrors.settle_h or 0), "both stream"
    assert (parity.unreadable or 0) > (mirrors.unreadable or 0)
    assert (parity.cost_a_tb or 0) < (mirrors.cost_a_tb or 0)


def test_an_adapter_that_its_socket_wastes() -> None:
    """A note on USB 2; none on USB 3, where it moves what it can."""
    adapter = {
        "id": "X90",
        "kind": "device",
        "part_class": "usb2_device",
        "maker": "m",
        "model": "Ferry",
        "offers": {"ethernet": {}},
        "rates": {"network_mbit_s": 1000},
        "plugs": {"usb": {"connectors": ["usb-a"], "generation": 3}},
    }
    catalogue = with_part(**adapter)
    slow = checked(
        kit("B04", "S06", "M02", "X90", transfers=transfer(source="program", target="network")),
        1,
        catalogue,
    )
    assert [f.severity for f in told(slow, "DATA-04")] == ["note"]
    transfers = transfer(source="program", target="network")
    quick = checked(kit("B06", "S01", "M02", "X90", transfers=transfers), 1, catalogue)
    assert told(quick, "DATA-04") == []


def test_an_exchange_format_where_nobody_pulls_the_plug() -> None:
    """One's own disk that any computer can read is nobody's mistake."""
    plan = kit(*STORE, storage_use={"file_system": "exchange"})
    assert told(checked(plan), "DATA-06") == []
    users = [{"id": "us", "text": "five people", "function": "users", "at_least": 5}]
    shared = plan.model_copy(
        update={
            "requirements": Plan.model_validate({"name": "n", "requirements": users}).requirements
        }
    )
    assert "owners" in told(checked(shared), "DATA-06")[0].id


@pytest.mark.parametrize(
    ("fields", "sentence"),
    [
        ({"amount_gb": None}, "with amount_gb, or a stream"),
        ({"stream_mb_s": 1}, "with amount_gb, or a stream"),
        ({"target": "network"}, "source and target"),
        ({"amount_gb": None, "stream_mb_s": 1, "within_min": 3}, "no time limit"),
    ],
)
def test_a_flow_that_makes_no_sense_is_refused(fields: dict[str, Any], sentence: str) -> None:
    """With what to change."""
    with pytest.raises(InputError, match=sentence):
        apply_patch(kit(*STORE), (SetFields(fields={"transfers": transfer(**fields)}),))


def test_part_of_a_group_is_changed_alone() -> None:
    """Another tab's layout is not undone by a change of the file system."""
    plan = kit(*STORE, storage_use={"layout": "mirror"}, retention={"years": 7})
    changed = apply_patch(
        plan,
        (
            SetFields(
                fields={"storage_use": {"encrypted": True}, "retention": {"replaceable": False}}
            ),
        ),
    )
    assert (changed.storage_use.layout, changed.storage_use.encrypted) == ("mirror", True)
    assert (changed.retention.years, changed.retention.replaceable) == (7, False)


def test_encryption_costs_what_the_processor_has_no_instructions_for() -> None:
    """86 MB/s on a middle card, over 1000 on a fast one."""
    kept = {"encrypted": True}
    read = transfer(source="storage", target="program")
    middle = checked(kit(*STORE, transfers=read, storage_use=kept))
    (at,) = middle.data.situations[0].moved
    assert (at.bottleneck_label, at.rate_mb_s < 100) == ("encryption in the processor", True)
    fast = checked(kit("B10", "S03", "M02", "D09", "A12", transfers=read, storage_use=kept))
    (at,) = fast.data.situations[0].moved
    assert at.rate_mb_s > 250


def test_past_its_cache_a_drive_takes_the_rest_more_slowly() -> None:
    """By hand: 100 GB onto a drive of 375 MB/s on one lane, whose first 20 GB go to its cache, and
    the other 80 at 120 MB/s: 20/375 + 80/120 thousand seconds.
    """
    drive = {
        "id": "D90",
        "kind": "drive",
        "part_class": "ssd_2_5",
        "maker": "m",
        "model": "Cliff",
        "storage": {"capacity_gb": 480},
        "medium": {"kind": "solid_state", "sustained_mb_s": 120, "cache_gb": 20},
    }
    plan = kit("B10", "S03", "M02", "D90", "A12", transfers=transfer(source="program"))
    catalogue = with_part(**drive)
    found = {}
    for amount_gb in (15, 100):
        flow = transfer(source="program", amount_gb=amount_gb)
        data = data_of(Kit(plan.model_copy(update={"transfers": flow_of(flow)}), catalogue, 1))
        (situation,) = data.situations
        found[amount_gb] = situation.moved[0]
    fast = nominal(found[15].rate_mb_s)
    expected = 100 / (20 / fast + 80 / 120)
    assert nominal(found[100].rate_mb_s) == pytest.approx(expected, rel=1e-6)
    assert found[15].bottleneck is not None
    assert found[15].bottleneck.kind != "medium"
    assert found[100].bottleneck is not None
    assert found[100].bottleneck.label == "writing to Cliff"


def flow_of(entries: list[dict[str, Any]]) -> tuple[Transfer, ...]:
    """Transfers of their documents."""
    return tuple(Transfer.model_validate(entry) for entry in entries)


@pytest.mark.parametrize(("hours", "severity"), [(0.1, "ok"), (6, "problem")])
def test_a_stream_longer_than_its_cache_is_taken_as_its_drive_is_then(
    hours: float, severity: str
) -> None:
    """A stick that takes 45 MB/s for 8 GB and 9 after: 20 MB/s for six minutes, not for a night."""
    stick = {
        "id": "D91",
        "kind": "drive",
        "part_class": "ssd_2_5",
        "maker": "m",
        "model": "Twig",
        "storage": {"capacity_gb": 480},
        "medium": {"kind": "solid_state", "sustained_mb_s": 9, "cache_gb": 8},
    }
    flow = {"id": "mics", "text": "microphones", "source": "program", "target": "storage"}
    stream = [{**flow, "stream_mb_s": 20, "hours_a_day": hours}]
    plan = kit("B06", "S01", "M02", "D91", "A12", transfers=stream)
    found = margin(checked(plan, 1, with_part(**stick)), "DATA-01:mics")
    assert found.severity == severity


@pytest.mark.parametrize(
    ("wished", "severity"), [(10, "ok"), (12, "ok"), (13, "tight"), (18, "tight"), (20, "problem")]
)
def test_a_wished_rate_without_a_transfer(wished: float, severity: str) -> None:
    """11.3 MB/s of a wire of 100 Mbit/s, both ways between it and the disk; within a tenth nobody
    minds.
    """
    wish = [{"id": "fast", "text": "copies", "function": "ethernet", "at_least": wished}]
    report = checked(kit("B04", "S06", "M02", "D09", "A12", requirements=wish), 256)
    assert margin(report, "DATA-01:fast").severity == severity
    (requirement,) = report.purpose
    assert requirement.status == ("met" if severity == "ok" else "not_met")
    assert (requirement.have, requirement.want) == (pytest.approx(11.3, abs=0.1), wished)


def test_two_devices_share_a_usb_2_bus() -> None:
    """One gets 35 MB/s of it, two together 48; read and written at once 44. What people get."""
    alone = transfer(source="storage", target="program")
    plan = kit("B04", "S06", "M02", "2xD09", "2xA12", transfers=alone)
    (only,) = data_of(Kit(plan, shipped(), 1)).situations
    assert nominal(only.moved[0].rate_mb_s) == pytest.approx(35, rel=0.01)
    mirrored = plan.model_copy(
        update={"storage_use": plan.storage_use.model_copy(update={"layout": "mirror"})}
    )
    writes = flow_of(transfer(source="program", target="storage"))
    (both,) = data_of(
        Kit(mirrored.model_copy(update={"transfers": writes}), shipped(), 1)
    ).situations
    assert nominal(both.moved[0].rate_mb_s) == pytest.approx(48 / 2, rel=0.01), "each byte twice"


def test_files_that_go_side_by_side_are_as_many() -> None:
    """Three copies at once take three times as long, and each gets a third of the rate."""
    one = margin(checked(kit(*STORE, transfers=transfer(within_min=20))), "DATA-01:copies")
    three = checked(kit(*STORE, transfers=transfer(within_min=20, at_once=3)))
    assert margin(three, "DATA-01:copies").value == pytest.approx(3 * one.value)
    each = checked(kit(*STORE, transfers=transfer(least_mb_s=80, at_once=3)))
    assert margin(each, "DATA-01:copies").value == pytest.approx(111.8 / 3, rel=0.01)


@pytest.mark.parametrize(
    ("parts", "fields", "why"),
    [
        (("D09", "A12"), {"amount_gb": 600}, "the kit has too little capacity for it"),
        (("2xD09", "2xA12"), {"amount_gb": 600}, "the kit has too little capacity for it"),
        (("D09", "A12"), {"source": "camera"}, "its source is not in the kit"),
        (("A02", "D08"), {"source": "program"}, "D08"),
    ],
)
def test_data_05_a_transfer_without_a_path(
    parts: tuple[str, ...], fields: dict[str, Any], why: str
) -> None:
    """No room on what it lands on, no source, a drive that its socket does not detect: stopped."""
    report = checked(kit("B10", "S03", "M02", *parts, transfers=transfer(**fields)))
    (finding,) = told(report, "DATA-05")
    assert finding.severity == "problem"
    assert why in finding.sentence.text or "not detected" in finding.sentence.text


def test_data_05_is_silent_where_a_requirement_says_it() -> None:
    """No camera for a requirement and its transfer: told once, by the requirement."""
    asks = [{"id": "eye", "text": "a camera", "function": "camera"}]
    flow = transfer(source="camera")
    report = checked(kit(*STORE, requirements=asks, transfers=flow))
    assert told(report, "DATA-05") == []
    assert [f.severity for f in told(report, "NEED-01")] == ["problem"]


def test_a_processor_slowed_by_heat_slows_parity() -> None:
    """The same array in the open and in a sealed box in the sun."""
    four = ("4xD09", "4xA12", "H03")
    rates = []
    for case, place in (("E01", {}), ("E04", {"ambient_max_c": 38})):
        schedule = [{"name": "day", "hours": 24, "activity": "full"}]
        plan = kit(
            *("B06", "S01", "M02", *four, case),
            storage_use={"layout": "parity"},
            transfers=transfer(source="program"),
            schedule=schedule,
            place=place,
        )
        (situation,) = data_of(Kit(plan, shipped(), 1)).situations
        rates.append(nominal(situation.moved[0].rate_mb_s))
    assert rates[1] < 0.8 * rates[0]
