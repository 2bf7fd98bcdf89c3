"""Better buys: what stands beside a chosen part in the catalogue and gives more for little."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from decimal import Decimal

from cobblewort.core import words
from cobblewort.core.judging.findings import Observation
from cobblewort.core.judging.kit import Items, derived
from cobblewort.core.judging.prices import prices_of
from cobblewort.core.judging.severity import INFORMS
from cobblewort.core.parts.model import Feed, Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.plan import Line, Prices
from cobblewort.core.text import Figure, Text, say

_MUCH_FASTER, _LITTLE_MORE = 2.1, Decimal("1.35")
"""A board is the better buy where it is more than twice as fast for about a third more: a guess."""
_SMALL_CARD_GB = 32.0
"""Below this a card of twice the size costs little more (common practice)."""


@derived("connected", "catalogue", "currency", "place.ambient_min_c", "place.power", prices_of)
def better_buys_of(
    connected: Items,
    catalogue: Catalogue,
    currency: str,
    ambient_min_c: float,
    power_source: Feed,
    prices: Prices,
) -> list[Observation]:
    """Boards with a much faster one for little more, and storage with a cheaper and larger one."""
    chosen = [(line, part) for line, part in connected.by_line() if not line.owned]
    found = [
        *_faster_boards(
            prices,
            power_source,
            catalogue,
            ambient_min_c,
            currency,
            [entry for entry in chosen if entry[1].kind == "board"],
        )
    ]
    stores = [(line, part) for line, part in chosen if part.storage is not None]
    offered = catalogue.parts(("drive", "card")) if stores else []
    for line, part in stores:
        better = _larger(prices, ambient_min_c, part, offered)
        if better is not None:
            text = _larger_text(prices, currency, part, better)
            found.append(Observation(line.id, INFORMS, text, (line.id,)))
    return found


def _faster_boards(
    prices: Prices,
    power_source: Feed,
    catalogue: Catalogue,
    ambient_min_c: float,
    currency: str,
    boards: Sequence[tuple[Line, Part]],
) -> Iterator[Observation]:
    """Boards beside which one of the same make-up stands that is much faster for little more; where
    watts are short nobody wants that.
    """
    if power_source not in ("mains", "poe"):
        return
    for line, part in boards:
        own = prices.of(part)
        if own is None or part.parity_mb_s is None:
            continue
        found = [
            (other.parity_mb_s.nominal / part.parity_mb_s.nominal, price, other)
            for other in catalogue.parts(("board",))
            if other.parity_mb_s is not None
            and (price := prices.of(other)) is not None
            and other.origin != "typical"
            and own < price <= own * _LITTLE_MORE
            and _stands_alike(other, part)
            and (other.ambient_min_c is None or other.ambient_min_c <= ambient_min_c)
        ]
        times, price, better = max(found, key=lambda entry: entry[0], default=(0.0, own, part))
        if times > _MUCH_FASTER:
            more = words.money(price - own, currency)
            yield Observation(
                line.id,
                INFORMS,
                say(
                    "{better} costs {more} more than {part} and is {times} times as fast.",
                    better=better.model,
                    more=more,
                    part=part.model,
                    times=Figure(times, "", 1),
                ),
                (line.id,),
            )


def _stands_alike(other: Part, than: Part) -> bool:
    """Whether a board stands where another does and gives all that it gives."""
    one, two = other.stack, than.stack
    if one is None or two is None or one.holes != two.holes:
        return False
    return than.offers.keys() <= other.offers.keys()


def _larger(prices: Prices, coldest_c: float, part: Part, offered: Sequence[Part]) -> Part | None:
    """The largest drive of a drive's shape, or card, that holds more, costs less and is worse in
    nothing that is stated; beside a small card also one of twice its size for little more.
    """
    own = prices.of(part)
    if part.storage is None or own is None:
        return None
    capacity_gb = part.storage.capacity_gb
    is_small = part.kind == "card" and capacity_gb < _SMALL_CARD_GB
    found = [
        (price < own, other.storage.capacity_gb, other)
        for other in offered
        if other.storage is not None
        and other.storage.capacity_gb > capacity_gb
        and other.kind == part.kind
        and other.origin != "typical"
        and (price := prices.of(other)) is not None
        and (price < own or (is_small and price <= own * _LITTLE_MORE))
        and _as_good(other, part)
        and (other.ambient_min_c is None or other.ambient_min_c <= coldest_c)
    ]
    return max(found, key=lambda entry: entry[:2])[2] if found else None


def _larger_text(prices: Prices, currency: str, part: Part, better: Part) -> Text:
    own, price = prices.of(part) or Decimal(0), prices.of(better) or Decimal(0)
    capacity_gb = 0.0 if better.storage is None else better.storage.capacity_gb
    if price < own:
        return say(
            "{better} holds {capacity} for {price}: more than {part}, for less money.",
            better=better.model,
            capacity=words.counted(capacity_gb, "GB"),
            price=words.money(price, currency),
            part=part.model,
        )
    more = say("{price} more than", price=words.money(price - own, currency))
    return say(
        "{better} holds {capacity} and costs {more} {part}.",
        better=better.model,
        capacity=words.counted(capacity_gb, "GB"),
        more=more if price > own else "as much as",
        part=part.model,
    )


def _as_good(other: Part, than: Part) -> bool:
    """Whether a store goes where another does and is neither slower nor sooner worn, as far as that
    one says.
    """
    one, two = other.drive, than.drive
    if two is not None:
        shape = (two.size, two.protocol, two.spins)
        if one is None or (one.size, one.protocol, one.spins) != shape:
            return False
        figures = [
            (one.read_mb_s, two.read_mb_s),
            (one.write_mb_s, two.write_mb_s),
            (one.endurance_tb, two.endurance_tb),
        ]
    elif other.storage is None or than.storage is None:
        return False
    else:
        figures = [
            (other.storage.endurance_tb, than.storage.endurance_tb),
            (other.storage.write_mb_s, than.storage.write_mb_s),
        ]
    return all(
        mine is not None and mine.nominal >= its.nominal for mine, its in figures if its is not None
    )
