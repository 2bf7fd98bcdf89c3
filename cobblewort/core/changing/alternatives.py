"""Alternatives: where practice differs, which side a plan is on, and the plan on the other side.

Neither side is wrong. A variant keeps both plans, so that the difference can be looked at.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from cobblewort.core.aspects.cost.model import of as cost_of
from cobblewort.core.aspects.data.arrays import possible
from cobblewort.core.aspects.data.model import array_of
from cobblewort.core.aspects.fit.model import stack_of
from cobblewort.core.aspects.power.model import of as power_of
from cobblewort.core.changing.describe import describe
from cobblewort.core.changing.effects import Effect, effect_of
from cobblewort.core.errors import InputError
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.remedies import on_offer, other_supplies
from cobblewort.core.parts.model import Part
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import AddLine, EditLine, Patch, SetFields, SwapPart, apply_patch
from cobblewort.core.plans.plan import Layout, Plan
from cobblewort.core.text import EMPTY, Text
from cobblewort.core.verdict.evaluate import evaluation_of
from cobblewort.core.verdict.evaluation import Evaluation

_MOST_TRIES = 40


@dataclass(slots=True, frozen=True)
class Alternative:
    """One question on which practice differs.

    `side` is where the plan stands, `other` the side it could be on; `patch` takes it there, with
    `title` saying how and `effect` what that does. Without a patch `why_not` says what is missing.
    `steps` are what the other side asks for besides, or gives up.
    """

    id: str
    question: str
    side: str
    other: str
    title: Text
    patch: Patch
    why_not: str
    effect: Effect | None
    steps: tuple[str, ...] = ()


_STEPS = {
    "boot from a drive": (
        "Write the image to the drive from another computer, or from the board started by a card.",
        "Set the boot order of the board to the drive, then remove the card.",
    ),
    "boot from a card": (
        "Write the image to the card with a card reader.",
        "Save an image of the finished card, so that you can replace it in minutes.",
    ),
    "use single parity": ("More capacity. Writing is slower, and a rebuild loads all disks.",),
    "mirror the disks": (
        "Less capacity. Each disk of a pair has all data, and a rebuild is fast.",
    ),
    "use a file system with checksums": (
        "Checksums find damaged files, and snapshots restore old ones. They need memory, and other "
        "computers need the driver.",
    ),
    "use the system's own file system": (
        "File ownership, a journal and little processor load. Damaged files are found only when "
        "read. If formatting stops, choose the system's second file system.",
    ),
}
"""What an alternative needs besides its parts, or gives up, by its name."""


def alternatives_of(plan: Plan, catalogue: Catalogue) -> list[Alternative]:
    """The questions in which a plan takes a side, with the cheapest change to the other side."""
    before = evaluation_of(plan, catalogue)
    kit = before.kit
    found = [
        _alternative(before, "boot_drive", "Boot drive", *_boot(kit)),
        _alternative(before, "cooling", "Cooling", *_cooling(kit)),
        _alternative(before, "power_supply", "Power supply", *_supply(kit)),
        _alternative(before, "image", "Operating system image", *_image(kit)),
        _alternative(before, "drive-board", "Position of the M.2 adapter", *_drive_board(kit)),
        _alternative(before, "array", "Array layout", *_array(kit)),
        _alternative(before, "file-system", "File system", *_file_system(kit)),
    ]
    return [alternative for alternative in found if alternative is not None]


def alternative_of(plan: Plan, catalogue: Catalogue, alternative_id: str) -> Alternative:
    """One alternative. Raises InputError without one, or without a change to it."""
    alternative = next(
        (s for s in alternatives_of(plan, catalogue) if s.id == alternative_id), None
    )
    if alternative is None:
        raise InputError([("alternative", f"The plan has no alternative '{alternative_id}'.")])
    if not alternative.patch:
        raise InputError([("alternative", alternative.why_not)])
    return alternative


def _alternative(
    before: Evaluation,
    alternative_id: str,
    question: str,
    side: str,
    other: str,
    patches: Iterable[Patch],
) -> Alternative | None:
    if not side:
        return None
    plan, catalogue = before.kit.plan, before.kit.catalogue
    steps = _STEPS.get(other, ())
    best: tuple[tuple[int, int, str], Patch, Evaluation] | None = None
    for number, patch in enumerate(patches):
        if number == _MOST_TRIES:
            break
        try:
            after = evaluation_of(apply_patch(plan, patch), catalogue, like=before)
        except InputError:
            continue  # a patch may reach past a limit of plans, such as 400 pieces
        rank = (after.count("problem"), after.count("tight"), f"{cost_of(after.kit).total:012.2f}")
        if best is None or rank < best[0]:
            best = (rank, patch, after)
    if best is None:
        why = f"No part in the catalogue can do this: {other}."
        return Alternative(alternative_id, question, side, other, EMPTY, (), why, None, steps)
    title = describe(plan, catalogue, best[1])
    effect = effect_of(before, best[2])
    return Alternative(alternative_id, question, side, other, title, best[1], "", effect, steps)


_Sides = tuple[str, str, Iterable[Patch]]
_NO_SIDE: _Sides = ("", "", ())


def _boot(kit: Kit) -> _Sides:
    """From a card, simple and replaceable, or from a drive, fast and durable."""
    boot = next(iter(kit.items.of_role("boot_drive")), None)
    if boot is None:
        return _NO_SIDE
    if boot.part.kind == "card":
        return "a memory card", "boot from a drive", _drive_for(kit, boot.line.id)
    cards = (
        (SwapPart(line=boot.line.id, part=card.id),)
        for card in _by_price(on_offer(kit, ("card",)))
        if kit.plan.image is None or _capacity(card) >= kit.plan.image.card_gb
    )
    return "a drive", "boot from a card", cards


def _drive_for(kit: Kit, line: str) -> Iterator[Patch]:
    """The card gives way to a drive, with what joins it where no socket is free."""
    for drive in _by_price(on_offer(kit, ("drive",)))[:6]:
        swap = SwapPart(line=line, part=drive.id)
        yield (swap,)
        connectors = {c for plug in drive.plugs.values() for c in plug.connectors}
        for adapter in _by_price(on_offer(kit, ("storage_adapter",))):
            if connectors & {s.connector for s in adapter.sockets.values()}:
                yield (swap, AddLine(role="add_on", part=adapter.id))


def _cooling(kit: Kit) -> _Sides:
    """Active always, or passive until it throttles."""
    cooler = stack_of(kit).cooler
    if cooler is None or cooler.part.cooler is None:
        return _NO_SIDE
    active = cooler.part.cooler.r_fan_k_w is not None
    others = (
        (SwapPart(line=cooler.line.id, part=part.id),)
        for part in _by_price(on_offer(kit, ("cooler",)))
        if part.cooler is not None and (part.cooler.r_fan_k_w is not None) != active
    )
    sides = ("with a fan", "cool without a fan")
    if not active:
        sides = ("without a fan", "cool with a fan")
    return (*sides, others)


def _supply(kit: Kit) -> _Sides:
    """One that announces its full current, or any good one and the setting that lifts the limit."""
    board, supply = stack_of(kit).board, next(iter(kit.items.of_role("power_supply")), None)
    if board is None or supply is None or supply.part.source is None:
        return _NO_SIDE
    asks = [r.advertise_a for r in board.part.rails.values() if r.advertise_a is not None]
    if not asks:
        return _NO_SIDE
    if kit.plan.settings.lift_port_limit:
        patches = (
            (*patch, _lift(kit, on=False))
            for patch in other_supplies(kit)
            if _advertises(kit, patch) >= max(asks)
        )
        return (
            "port limit lifted by a setting",
            "use a power supply that advertises its current",
            patches,
        )
    if power_of(kit).forest.advertised_a.get(board.id, 0.0) < max(asks):
        return (
            "ports at the lower limit",
            "lift the port limit by a setting",
            [(_lift(kit, on=True),)],
        )
    cheaper = (
        (*patch, _lift(kit, on=True))
        for patch in other_supplies(kit)
        if _advertises(kit, patch) < max(asks)
    )
    return "a supply that advertises its current", "lift the port limit by a setting", cheaper


def _lift(kit: Kit, *, on: bool) -> SetFields:
    settings = {**kit.plan.settings.model_dump(), "lift_port_limit": on}
    return SetFields(fields={"settings": settings})


def _advertises(kit: Kit, patch: Patch) -> float:
    """The current that the supply of a patch announces."""
    for change in patch:
        if isinstance(change, SwapPart | AddLine):
            source = kit.catalogue.part(change.part).source
            if source is not None:
                return source.advertises_a
    return 0.0


def _image(kit: Kit) -> _Sides:
    """Slim, without a desktop, or full, for when a sign-in page has to be opened."""
    image = kit.plan.image
    if image is None:
        return _NO_SIDE
    if image.desktop:
        slim = {"name": "Slim image", "card_gb": 4, "memory_gb": 0.5}
        patch: Patch = (SetFields(fields={"image": slim}),)
        return "full image with a desktop", "use a slim image", [patch]
    full = {
        "name": "Full image with a desktop",
        "desktop": True,
        "card_gb": max(image.card_gb, 16),
        "memory_gb": max(image.memory_gb, 2),
    }
    return "slim image", "use a full image with a desktop", [(SetFields(fields={"image": full}),)]


def _drive_board(kit: Kit) -> _Sides:
    """Below, with the cooler free, or above, compact, with the cooler hampered."""
    adapter = next(
        (i for i in kit.items if i.part.kind == "storage_adapter" and i.part.add_on), None
    )
    if adapter is None or adapter.part.add_on is None:
        return _NO_SIDE
    side = adapter.part.add_on.side
    other = "above" if side == "below" else "below"
    patches = (
        (SwapPart(line=adapter.line.id, part=part.id),)
        for part in _by_price(on_offer(kit, ("storage_adapter",)))
        if part.add_on is not None and part.add_on.side == other
    )
    return f"{side} the board", f"move it {other} the board", patches


def _array(kit: Kit) -> _Sides:
    """Mirrors only, or parity for the room; with a disk more where there are too few."""
    disks, layout = array_of(kit).items, kit.plan.storage_use.layout
    if not disks or layout in ("separate", "stripe"):
        return _NO_SIDE
    mirrors = layout in ("mirror", "striped_mirrors")
    names: tuple[Layout, ...] = ("parity",) if mirrors else ("striped_mirrors", "mirror")
    line = disks[0].line
    patches = [
        (*more, SetFields(fields={"storage_use": {"layout": name}}))
        for added in (0, 1, 2)
        for name in names
        if possible(name, len(disks) + added)
        for more in [(EditLine(line=line.id, quantity=line.quantity + added),) if added else ()]
    ]
    if mirrors:
        return "mirror", "use single parity", patches
    return "parity", "mirror the disks", patches


def _file_system(kit: Kit) -> _Sides:
    """The system's own, or one with checksums; an exchange format gives way to the first."""
    if not array_of(kit).items:
        return _NO_SIDE
    now = kit.plan.storage_use.file_system
    other = "checksummed" if now == "native" else "native"
    patch: Patch = (SetFields(fields={"storage_use": {"file_system": other}}),)
    side = {
        "native": "the system's own",
        "exchange": "exchange format",
        "checksummed": "with checksums",
    }[now]
    if other == "checksummed":
        return side, "use a file system with checksums", [patch]
    return side, "use the system's own file system", [patch]


def _by_price(parts: list[Part]) -> list[Part]:
    return sorted(parts, key=lambda part: (part.price is None, part.price or 0, part.id))


def _capacity(part: Part) -> float:
    return 0.0 if part.storage is None else part.storage.capacity_gb
