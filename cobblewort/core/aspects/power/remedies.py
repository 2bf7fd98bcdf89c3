"""Ways out of a snag of supply, as patches still to be evaluated."""

from __future__ import annotations

from collections.abc import Iterator

from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.judging.findings import Finding
from cobblewort.core.judging.kit import Kit
from cobblewort.core.judging.remedies import on_offer
from cobblewort.core.plans.patch import AddLine, Patch, PinPlug, SetFields


def powered_hub(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """A hub with its own supply, and what hangs on the crowded sockets moved onto it.

    Where it is the inlet that carries too much, everything on USB moves.
    """
    fit = fit_of(kit)
    crowded = set(finding.sockets)
    on_usb = [
        (plug, socket)
        for plug, socket in fit.placed.values()
        if socket.socket.connector == "usb-a"
        and plug.plug.role == "device"
        and plug.item.part.kind != "hub"
        and socket.item.part.kind == "board"
    ]
    moved = [plug for plug, socket in on_usb if socket.id in crowded]
    if any(fit.sockets[name].socket.role == "power_in" for name in crowded):
        moved = [plug for plug, _ in on_usb]
    if not moved:
        return
    line_id = kit.plan.free_line_id("add_on")
    for hub in on_offer(kit, ("hub",)):
        if hub.source is None:
            continue
        free = [f"{line_id}#1.{name}" for name in hub.sockets]
        pins = tuple(
            PinPlug(
                line=plug.item.line.id,
                plug=f"{plug.item.index}.{plug.name}",
                socket=socket,
            )
            for plug, socket in zip(moved, free, strict=False)
        )
        yield (AddLine(role="add_on", part=hub.id, line=line_id), *pins)


def lift_port_limit(kit: Kit, finding: Finding) -> Iterator[Patch]:
    """The setting that lets the board give its ports the full current without the announcement."""
    del finding
    if not kit.plan.settings.lift_port_limit:
        settings = {**kit.plan.settings.model_dump(), "lift_port_limit": True}
        yield (SetFields(fields={"settings": settings}),)
