"""Flows that share links: max-min fair rates by progressive filling.

All rates rise together; a flow stops where a link that it takes is full, or where it has what it
wants; the others go on. What a flow takes of a link is told as `load`, the share of the link that
1 MB/s of it uses: 1/c where the flow alone would get c. So a half-duplex bus that is crossed twice,
a mirror that is written twice and a drive that reads faster than it writes are all links with
loads, and a link is full when the shares add up to 1.

The same formulas serve one number and arrays of them.

References
----------
.. [1] D. Bertsekas, R. Gallager, Data Networks, 2nd ed. 1992, 6.5.2, max-min flow control.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from math import inf

from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.one_or_many import largest, lesser, pick

Load = Mapping[str, Quantity]
"""What 1 MB/s of a flow takes of each link on its way, by the link's id. [s/MB]"""
_FULL = 1e-9
"""A link with less room than this is full."""


def alone_mb_s(load: Load) -> Quantity:
    """What a flow gets with nobody beside it. [MB/s]"""
    rate: Quantity = inf
    for share in load.values():
        rate = lesser(rate, 1 / share)
    return rate


def fair_rates_mb_s(loads: Sequence[Load], most: Sequence[Quantity | None]) -> list[Quantity]:
    """What each of some flows gets at the same time. [MB/s]

    Parameters
    ----------
    loads : sequence of mappings
        Of each flow what it takes of the links on its way; every flow takes some. What only one of
        them passes is a cap of its own, so that only links that are shared are filled.
    most : sequence
        What each flow wants at most; None for one that takes all it can get.

    Notes
    -----
    Progressive filling: all rates rise alike, and a flow stops where sum r / c = 1 on a link that
    it passes (equation (10) of docs/model.md) or where it has what it wants. The result is max-min
    fair: no rate can grow unless one that is not greater shrinks. Exact for any loads above 0.

    References
    ----------
    .. [1] Bertsekas and Gallager, Data Networks, 2nd edition, 6.5.2.
    """
    caps, shared = _capped(loads, most)
    if all(_holds(loads, on_it, link, caps) for link, on_it in shared.items()):
        return caps
    rates: list[Quantity] = [0.0] * len(loads)
    rising: list[Quantity] = [1.0] * len(loads)
    for _ in loads:
        step: Quantity = inf
        room, grows = {}, {}
        for link, on_it in shared.items():
            free: Quantity = 1.0
            growth: Quantity = 0.0
            for n in on_it:
                share = loads[n][link]
                free = free - share * rates[n]
                growth = growth + share * rising[n]
            room[link], grows[link] = free, growth
            step = lesser(step, pick(growth > 0, free / (growth + _TINY), inf))
        for n, cap in enumerate(caps):
            step = lesser(step, pick(rising[n] > 0, cap - rates[n], inf))
        step = pick(step < inf, step, 0.0)
        rates = [rate + step * up for rate, up in zip(rates, rising, strict=True)]
        for link, on_it in shared.items():
            is_full = room[link] - step * grows[link] < _FULL
            for n in on_it:
                rising[n] = pick(is_full, 0.0, rising[n])
        for n, cap in enumerate(caps):
            rising[n] = pick(cap - rates[n] < _FULL * cap, 0.0, rising[n])
        if all(largest(up) == 0.0 for up in rising):
            break
    return rates


def _capped(
    loads: Sequence[Load], most: Sequence[Quantity | None]
) -> tuple[list[Quantity], dict[str, list[int]]]:
    """What each flow gets at most, by what it wants and by links that it has for itself; and of
    links that several pass, which do.
    """
    users: dict[str, list[int]] = {}
    for n, load in enumerate(loads):
        for link in load:
            users.setdefault(link, []).append(n)
    shared = {link: on_it for link, on_it in users.items() if len(on_it) > 1}
    caps: list[Quantity] = []
    for load, wanted in zip(loads, most, strict=True):
        cap: Quantity = inf if wanted is None else wanted
        for link, share in load.items():
            if link not in shared:
                cap = lesser(cap, 1 / share)
        caps.append(cap)
    return caps, shared


def _holds(
    loads: Sequence[Load], on_it: Sequence[int], link: str, rates: Sequence[Quantity]
) -> bool:
    """Whether a link has room for some rates at once."""
    used: Quantity = 0.0
    for n in on_it:
        used = used + loads[n][link] * rates[n]
    return largest(used) <= 1.0


_TINY = 1e-300
"""Keeps a division by nothing from being one where its result is not picked."""
