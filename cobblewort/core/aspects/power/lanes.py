"""What a lane lets a drive draw: it works no harder than its data come and go."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from cobblewort.core.aspects.fit.paths import drive_rates_mb_s
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.parts.compiled import (
    DRAWS,
    CompiledPart,
    Draws,
    LoadArrays,
    draws_by_rail,
)

LEAST_SHARE = 0.35
"""What a drive draws above rest however slow its lane is: from memory."""
TYPICAL_MB_S: dict[tuple[str, str], float] = {
    ("2230", "pcie"): 2500.0,
    ("2242", "pcie"): 2500.0,
    ("2280", "pcie"): 3000.0,
    ("2280", "sata"): 530.0,
}
"""What a drive of its size and protocol reads that states neither rates nor a kind: typical, from
memory."""
_IDLE, _START = DRAWS.index("idle"), DRAWS.index("start")


@dataclass(slots=True, frozen=True)
class Narrowed:
    """A drive on a lane slower than itself: the raw rate that is its share [MB/s], and its loads as
    they then are, by name and by rail.
    """

    rate_mb_s: float
    loads: Mapping[str, LoadArrays]
    draws: Draws


@derived("connected", drive_rates_mb_s)
def narrowed(connected: Items, rates_mb_s: dict[str, float]) -> dict[str, Narrowed]:
    """Drives that their lane holds back, by piece; disks that spin always draw in full."""
    found = {}
    for item in connected if rates_mb_s else ():
        rate_mb_s = rates_mb_s.get(item.id)
        if rate_mb_s is not None and (held := narrow(item.compiled, rate_mb_s)) is not None:
            found[item.id] = held
    return found


def narrow(compiled: CompiledPart, rate_mb_s: float) -> Narrowed | None:
    """P_L = P_idle + (L - P_idle) f with f = max(0.35, min(1, rate / own rate)); None where
    nothing is held back.
    """
    drive = compiled.part.drive
    if drive is None or drive.spins:
        return None
    own_mb_s = [
        compiled.figure(f"drive.{name}")
        for name in ("read_mb_s", "write_mb_s")
        if getattr(drive, name) is not None
    ]
    if not own_mb_s:
        usual = TYPICAL_MB_S.get((drive.size, drive.protocol))
        if usual is None:
            return None
        own_mb_s = [np.full(compiled.samples, usual)]
    share = np.clip(rate_mb_s / np.max(own_mb_s, axis=0), LEAST_SHARE, 1.0)
    if share.min() == 1.0:
        return None
    loads = {}
    for name, load in compiled.loads.items():
        idle = load.table[_IDLE]
        table = idle + (load.table - idle) * share
        table[: _IDLE + 1] = load.table[: _IDLE + 1]
        if compiled.part.loads[name].start is not None:
            table[_START] = load.table[_START]
        loads[name] = LoadArrays(load.rail, load.in_watts, table)
    return Narrowed(rate_mb_s, loads, draws_by_rail(loads.values()))
