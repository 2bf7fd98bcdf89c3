"""A compiled part has all its figures from the start, and is never changed."""

import numpy as np
import pytest

from cobblewort.core.parts.compiled import CompiledPart, Moved
from cobblewort.core.parts.readings import readings_of
from tests.kits import shipped


def test_every_figure_is_there_by_its_path() -> None:
    """Sample 0 is nominal; a draw is that of the same path in another copy."""
    for part in shipped().parts():
        made, again = CompiledPart(part, 8), CompiledPart(part, 8)
        for path, reading in readings_of(part):
            if not path.startswith("loads."):
                values = made.figure(path)
                assert values[0] == reading.nominal, (part.id, path)
                assert np.array_equal(values, again.figure(path))
                assert reading.low <= values.min() <= values.max() <= reading.high


def test_nothing_of_it_can_be_written() -> None:
    """Neither a figure nor the table of a load."""
    made = CompiledPart(shipped().part("B10"), 4)
    for values in (made.figure("board_heat.throttle_c"), made.loads["own"].table):
        with pytest.raises(ValueError, match="read-only"):
            values[0] = 1.0


def test_a_figure_that_is_not_there_is_a_fault() -> None:
    """Unless something stands for it, as for a converter without a stated loss."""
    made = CompiledPart(shipped().part("B10"), 4)
    with pytest.raises(KeyError, match=r"B10 has no value 'case\.wall_w_mk'"):
        made.figure("case.wall_w_mk")
    assert made.figure("case.wall_w_mk", missing=2.0).tolist() == [2.0] * 4


def test_a_figure_can_be_moved_to_an_end_of_its_band() -> None:
    """That one alone; the readings of a load together."""
    part = shipped().part("B10")
    plain, moved = (
        CompiledPart(part, 1),
        CompiledPart(part, 1, Moved("board_heat.r_ba_k_w", "high")),
    )
    assert part.board_heat is not None
    assert moved.figure("board_heat.r_ba_k_w")[0] == part.board_heat.r_ba_k_w.high
    assert moved.figure("board_heat.r_db_k_w") == plain.figure("board_heat.r_db_k_w")
    load = CompiledPart(part, 1, Moved("loads.own", "low")).loads["own"]
    own = part.loads["own"]
    assert [load.row(name)[0] for name in ("idle", "normal", "peak")] == [
        own.idle.low,
        own.normal.low,
        own.peak.low,
    ]
