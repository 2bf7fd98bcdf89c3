"""Plans of many kinds, and every kind of change that a plan can have."""

from __future__ import annotations

import random

from cobblewort.core.errors import InputError
from cobblewort.core.plans.patch import (
    AddLine,
    EditLine,
    Patch,
    PinPlug,
    RemoveLine,
    SetFields,
    SwapPart,
    apply_patch,
)
from cobblewort.core.plans.plan import KINDS_FOR_ROLE, Plan
from tests.kits import demo, kit, shipped

PLANS = {
    "choir": demo("choir-recorder"),
    "moss": demo("moss-cabinet"),
    "inside": kit("B10", "S12", "M02", "K05", "E03", "A06", "D04", "F01", budget="300"),
    "hub": kit("B10", "S03", "M02", "H03", "X06", "X07", "A12", "D11", "K06", "E03"),
}

_REQUIREMENTS = [
    {"id": "quiet", "text": "makes no sound", "condition": "silent"},
    {"id": "hours", "text": "runs on", "condition": "without_mains", "at_least": 4},
    {"id": "far", "text": "seen from outside", "condition": "remote_access"},
    {"id": "wires", "text": "on the wire", "function": "ethernet", "at_least": 80},
    {"id": "light", "text": "not heavier", "limit": "mass_g", "at_most": 300},
]
_FIELDS = [
    {"settings": {"lift_port_limit": True}},
    {"settings": {"push_slot": True, "read_only_root": True}},
    {"place": {"ambient_max_c": 40, "noise_max_dba": 20}},
    {"place": {"power": "solar", "network": "none"}},
    {"place": {"power": "battery", "within_reach_of": "children"}},
    {"place": {"wet": True, "dust": "much", "mounting": "hung"}},
    {"place": {"sun_w_m2": 700, "altitude_m": 1800, "ambient_min_c": -25}},
    {"schedule": [{"name": "all day", "hours": 24}]},
    {
        "schedule": [
            {"name": "work", "hours": 6, "activity": "full"},
            {"name": "work", "hours": 18, "activity": "idle"},
        ]
    },
    {"budget": "60"},
    {"budget": None},
    {"copies": 3},
    {"currency": "GBP"},
    {"currency": "GBP", "rates": {"EUR": "0.85"}},
    {"requirements": _REQUIREMENTS},
    {"requirements": _REQUIREMENTS[1:2]},
    {"requirements": []},
    {"image": {"name": "Small", "card_gb": 2, "memory_gb": 0.25}},
    {
        "image": {
            "name": "Large",
            "card_gb": 64,
            "memory_gb": 16,
            "desktop": True,
            "bits": 64,
            "families": ["other"],
        }
    },
    {
        "wired": [
            {"id": "lamp", "kind": "led", "label": "lamp", "pin": 11},
            {"id": "stop", "kind": "button", "label": "stop", "pin": 11},
        ]
    },
    {"wired": [{"id": "lamp", "kind": "led", "label": "lamp", "pin": 7, "made_for_v": 12}]},
    {"name": "another name", "purpose": "something else", "status": "ordered"},
]


def changes(plan: Plan) -> list[Patch]:
    """Swaps of every line, each line left out or changed, plugs moved, fields set, lines more."""
    found: list[Patch] = []
    for line in plan.lines:
        found.append((RemoveLine(line=line.id),))
        found.append((EditLine(line=line.id, quantity=line.quantity + 1),))
        found.append((EditLine(line=line.id, owned=not line.owned),))
        found.append((EditLine(line=line.id, modified=True, sheets_off=True),))
        found.append((EditLine(line=line.id, standoff_mm=20, addresses={"1": 0x77}),))
        others = shipped().parts(KINDS_FOR_ROLE[line.role])[::2]
        found += [(SwapPart(line=line.id, part=part.id),) for part in others]
    found += [
        (PinPlug(line=line.id, plug=plug, socket=f"{board.id}#1.{socket}"),)
        for board in plan.lines
        if board.role == "board"
        for line in plan.lines
        for plug in shipped().part(line.part).plugs
        for socket in ("usb2", "usb3", "inlet")
    ]
    found += [(SetFields.model_validate({"fields": fields}),) for fields in _FIELDS]
    found += [(AddLine(role="case", part="E12"),), (AddLine(role="add_on", part="X10"),)]
    return [patch for patch in found if _applies(plan, patch)]


def _applies(plan: Plan, patch: Patch) -> bool:
    try:
        apply_patch(plan, patch)
    except InputError:
        return False
    return True


def chain(name: str, length: int) -> list[Plan]:
    """A plan changed one thing at a time, the same for the same name."""
    chosen, plans = random.Random(name), [PLANS[name]]
    for _ in range(length):
        plans.append(apply_patch(plans[-1], chosen.choice(changes(plans[-1]))))
    return plans
