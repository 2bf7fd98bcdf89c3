"""What people measure when they copy: common practice, within bands, none by a special case."""

from __future__ import annotations

from typing import Any

import pytest

from cobblewort.core.aspects.data.model import Moved, moved
from cobblewort.core.aspects.data.model import of as data_of
from cobblewort.core.aspects.data.route import router_of
from cobblewort.core.figures.one_or_many import nominal
from cobblewort.core.judging.kit import Kit
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Plan, Transfer
from cobblewort.core.standards.units import gib, tib
from tests.kits import checked, kit, shipped, told, with_part

ADAPTER = {
    "id": "X90",
    "kind": "device",
    "part_class": "usb2_device",
    "maker": "m",
    "model": "Ferry",
    "offers": {"ethernet": {}},
    "rates": {"network_mbit_s": 1000},
    "plugs": {"usb": {"connectors": ["usb-a"], "generation": 3}},
}


def copy(
    plan: Plan,
    source: str = "network",
    target: str = "storage",
    catalogue: Catalogue | None = None,
    **transfer: Any,
) -> Moved:
    """A copy through a kit, alone."""
    wanted = {
        "id": "it",
        "text": "it",
        "source": source,
        "target": target,
        "amount_gb": 10,
        **transfer,
    }
    found = Kit(plan, catalogue or shipped(), 1)
    route = router_of(found).route(Transfer.model_validate(wanted))
    assert route.links, route.why_not
    return moved([route])[0]


def rate(at: Moved) -> float:
    """MB/s."""
    return nominal(at.rate_mb_s)


def bottleneck(at: Moved) -> str:
    """The kind of link that holds it back."""
    assert at.bottleneck is not None
    return at.bottleneck.kind


DRIVE = ("D09", "A12")


def test_a_board_of_100_mbit() -> None:
    """11 to 12 MB/s of one plain transfer."""
    at = copy(kit("B04", "S06", "M02", "D09", "A12"), "program", "network", protocol="transfer")
    assert 11 <= rate(at) <= 12
    assert bottleneck(at) == "ethernet"


def test_a_gigabit_board_with_one_disk() -> None:
    """About 111 MB/s."""
    at = copy(kit("B06", "S01", "M02", *DRIVE), protocol="transfer")
    assert rate(at) == pytest.approx(111, rel=0.06)
    assert bottleneck(at) == "ethernet"


@pytest.mark.parametrize("extra", [(), ("X90",)])
def test_network_and_drive_on_one_usb_2_bus(extra: tuple[str, ...]) -> None:
    """Under 30 MB/s, also with a gigabit adapter."""
    catalogue = with_part(**ADAPTER)
    at = copy(kit("B04", "S06", "M02", *DRIVE, *extra), catalogue=catalogue)
    assert (15 if extra else 5) < rate(at) < 30


def test_an_adapter_on_usb_2_is_the_better_way_all_the_same() -> None:
    """Both ways tried by hand: the faster one is taken."""
    catalogue = with_part(**ADAPTER)
    with_both = rate(copy(kit("B04", "S06", "M02", *DRIVE, "X90"), catalogue=catalogue))
    own = rate(copy(kit("B04", "S06", "M02", *DRIVE)))
    assert with_both > own
    quick = rate(copy(kit("B06", "S01", "M02", *DRIVE, "X90"), catalogue=catalogue))
    assert quick == pytest.approx(rate(copy(kit("B06", "S01", "M02", *DRIVE))))


def test_a_solid_state_drive_on_a_usb_3_adapter() -> None:
    """About 307 MB/s."""
    at = copy(kit("B10", "S03", "M02", *DRIVE), "storage", "program")
    assert rate(at) == pytest.approx(307, rel=0.05)
    assert bottleneck(at) == "bridge"


@pytest.mark.parametrize(("push", "expected", "within"), [(False, 430, 0.05), (True, 816, 0.08)])
def test_a_drive_on_one_lane(push: bool, expected: float, within: float) -> None:
    """430 MB/s at the certified generation 2, 816 at generation 3; the plan counts on the first."""
    plan = kit("B10", "S03", "M02", "A02", "D06", settings={"push_slot": push})
    at = copy(plan, "storage", "program")
    assert rate(at) == pytest.approx(expected, rel=within)
    assert bottleneck(at) == "pcie"


def test_software_parity_on_a_small_processor() -> None:
    """111 MB/s fall to about 30."""
    four = ("4xD09", "4xA12", "H03")
    plain = copy(
        kit("B10", "S03", "M02", *four, storage_use={"layout": "stripe"}), protocol="transfer"
    )
    parity = copy(
        kit("B10", "S03", "M02", *four, storage_use={"layout": "parity"}), protocol="transfer"
    )
    assert rate(plain) == pytest.approx(111, rel=0.06)
    assert rate(parity) == pytest.approx(30, rel=0.25)
    assert bottleneck(parity) == "processor"


def test_reading_is_not_slowed_by_parity() -> None:
    """Only writes have it to work out."""
    four = ("4xD09", "4xA12", "H03")
    plan = kit("B10", "S03", "M02", *four, storage_use={"layout": "parity"})
    assert rate(copy(plan, "storage", "network", protocol="transfer")) > 100


def test_four_disks_in_single_parity() -> None:
    """5.41 TiB of four times 2 TB after formatting: 98 to 100 % of what it comes to before."""
    assert 0.98 <= 5.41 / tib(3 * 2000) <= 1.0


@pytest.mark.parametrize(("protocol", "big", "small"), [("older", 103, 26), ("newer", 111.8, 36)])
def test_many_small_files(protocol: str, big: float, small: float) -> None:
    """A quarter of big ones over an older shared folder, a third over a newer one; 1 MB each."""
    plan = kit("B06", "S01", "M02", *DRIVE)
    assert rate(copy(plan, protocol=protocol)) == pytest.approx(big, rel=0.2)
    assert rate(copy(plan, protocol=protocol, file_mb=1)) == pytest.approx(small, rel=0.2)


def test_a_32_gb_card_is_what_an_always_on_hub_wants() -> None:
    """29.8 GiB as the computer counts; it takes the image with room, a 16 GB one does not do for
    the years that an endurance card does.
    """
    assert gib(32) == pytest.approx(29.802, abs=1e-3)
    hub = {"retention": {"writes": "hub"}, "image": {"name": "Hub", "card_gb": 16, "memory_gb": 1}}
    assert told(checked(kit("B06", "S01", "M02", **hub)), "NEED-07") == []
    small = checked(kit("B06", "S01", "M01", **{**hub, "image": {**hub["image"], "card_gb": 20}}))
    assert [f.severity for f in told(small, "NEED-07")] == ["problem"]


def test_two_mirrored_disks_write_each_byte_twice_over_their_shared_bus() -> None:
    """One lane for two drives: half of it for writes, all of it for reads."""
    plan = kit("B10", "S03", "M02", "A06", "D06", "D04", storage_use={"layout": "mirror"})
    lone = rate(copy(plan, "storage", "program"))
    assert rate(copy(plan, "program", "storage")) == pytest.approx(lone / 2, rel=0.01)


def test_a_drive_that_heat_holds_back_gives_what_is_left() -> None:
    """In a sealed box in the sun it slows; the same drive in the open does not."""
    hot = {"ambient_max_c": 45, "sun_w_m2": 800}
    schedule = [{"name": "all day", "hours": 24, "activity": "full"}]
    cool = copy(
        kit("B10", "S03", "M02", "A02", "D07", "E01", schedule=schedule), "storage", "program"
    )
    warm = Kit(
        kit("B10", "S03", "M02", "A02", "D07", "E12", place=hot, schedule=schedule), shipped(), 1
    )
    route = router_of(warm).route(
        Transfer(id="it", text="it", source="storage", target="program", amount_gb=10)
    )
    assert rate(moved([route])[0]) < 0.9 * rate(cool)


def test_a_card_reads_no_faster_than_its_slot() -> None:
    """About 22 MB/s on an older card, 44 on a middle one: class figures, from memory."""
    for board, supply, most in (("B04", "S06", 25), ("B06", "S01", 48)):
        at = copy(kit(board, supply, "M03"), "boot_drive", "program")
        assert (rate(at) <= most, bottleneck(at)) == (True, "slot")


def test_a_long_write_outlasts_the_cache() -> None:
    """900 GB at a stretch onto a drive whose cache holds some 60 are slower than 5."""
    plan = kit("B10", "S03", "M02", "A02", "D06")
    assert rate(copy(plan, "program", "storage", amount_gb=900)) < 0.75 * rate(
        copy(plan, "program", "storage", amount_gb=5)
    )


def test_flows_of_one_time_share_what_they_pass() -> None:
    """Two copies at once over one wire get half each; a stream beside a copy keeps its rate."""
    base = {"source": "storage", "target": "network", "during": "evening"}
    transfers = [
        {**base, "id": "a", "text": "a", "amount_gb": 5},
        {**base, "id": "b", "text": "b", "amount_gb": 5},
        {**base, "id": "film", "text": "film", "stream_mb_s": 2},
    ]
    plan = kit("B06", "S01", "M02", *DRIVE, transfers=transfers)
    (evening,) = data_of(Kit(plan, shipped(), 1)).situations
    rates = {m.route.transfer.id: rate(m) for m in evening.moved}
    assert rates["a"] == pytest.approx(rates["b"])
    assert rates["film"] == pytest.approx(2)
    assert 2 * rates["a"] + 2 == pytest.approx(111.8, rel=0.03)
