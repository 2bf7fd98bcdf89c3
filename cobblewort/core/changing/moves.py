"""Where else a plug could go, and what the plan would be like then."""

from __future__ import annotations

from dataclasses import dataclass

from cobblewort.core.aspects.fit.assign import PlugRef, SocketRef, fits, suits
from cobblewort.core.aspects.fit.model import of as fit_of
from cobblewort.core.aspects.fit.rules.connections import plug_name
from cobblewort.core.changing.effects import Effect, effect_of
from cobblewort.core.errors import InputError
from cobblewort.core.plans.catalogue import Catalogue
from cobblewort.core.plans.patch import Patch, PinPlug, apply_patch
from cobblewort.core.plans.plan import Plan
from cobblewort.core.text import EMPTY, Text
from cobblewort.core.verdict.evaluate import evaluation_of
from cobblewort.core.verdict.evaluation import Evaluation

MOST_MOVES = 24
"""More sockets than this are not tried one by one."""


@dataclass(slots=True, frozen=True)
class Move:
    """A socket that a plug could go into.

    `holder` is what stands there now, and would move if it can; `reason` the worst snag that the
    move would bring.
    """

    socket: str
    label: str
    holder: str
    current: bool
    patch: Patch
    reason: Text
    effect: Effect


def moves(plan: Plan, catalogue: Catalogue, plug_id: str) -> list[Move]:
    """Every socket for a plug, each tried in the plan at nominal figures.

    The one in use comes first, then those that bring no snag, then the others.

    Raises
    ------
    InputError
        If the kit has no such plug.
    """
    before = evaluation_of(plan, catalogue)
    fit = fit_of(before.kit)
    plugs = {p.id: p for p, _ in fit.placed.values()} | {u.plug.id: u.plug for u in fit.unplaced}
    plug = plugs.get(plug_id)
    if plug is None:
        raise InputError([("plug", f"The kit has no plug '{plug_id}' any more. Reload.")])
    here = fit.placed[plug_id][1].id if plug_id in fit.placed else None
    sockets = [s for s in fit.sockets.values() if fits(plug, s) and suits(plug, s)]
    sockets.sort(key=lambda s: (s.id != here, s.item.order))
    found = [_move(plan, catalogue, before, plug, s, here) for s in sockets[:MOST_MOVES]]
    return sorted(found, key=lambda move: (not move.current, bool(move.reason)))


def _move(
    plan: Plan,
    catalogue: Catalogue,
    before: Evaluation,
    plug: PlugRef,
    socket: SocketRef,
    here: str | None,
) -> Move:
    name = f"{plug.item.index}.{plug.name}"
    patch: Patch = (PinPlug(line=plug.item.line.id, plug=name, socket=socket.id),)
    holder = fit_of(before.kit).into(socket.id)
    current = socket.id == here
    after = before if current else evaluation_of(apply_patch(plan, patch), catalogue, like=before)
    known = {f.id for f in before.findings if f.severity == "problem"}
    new = [f for f in after.findings if f.severity == "problem" and f.id not in known]
    return Move(
        socket=socket.id,
        label=f"{socket.item.name}, {socket.socket.label or socket.name} ({socket.name})",
        holder="" if holder is None or holder.id == plug.id else plug_name(holder),
        current=current,
        patch=patch,
        reason=new[0].sentence if new else EMPTY,
        effect=effect_of(before, after),
    )
