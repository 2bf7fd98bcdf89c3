"""The drawings of a report: rulers, the stack, from above, supply, heat, data, life, and money.

Each is a function from the report to a sketch, for files and for the sheet; the page has its own,
to work in.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from decimal import Decimal
from itertools import product
from math import log
from typing import NamedTuple

from cobblewort.core import words
from cobblewort.core.aspects.power.report import PowerNode
from cobblewort.core.labels import ROLES, SEVERITIES
from cobblewort.core.text import Figure, say
from cobblewort.core.verdict.report import FamilyReport, Report
from cobblewort.formats.display_units import DisplayUnits
from cobblewort.formats.sketch import CABLE, INK, PALE, PAPER, SOFT, Sketch, cut, width_of

_ROW = 24.0
_MOST_BOXES = 400


def margins(report: Report, units: DisplayUnits) -> Sketch:
    """Every family on one limit line: spare to the right, short to the left and hatched."""
    sketch = Sketch("Margins", 520, 34 + _ROW * len(report.families))
    zero, reach = 230.0, 150.0
    sketch.text(zero - 6, 14, "short", 10, "end", soft=True)
    sketch.text(zero + 6, 14, "spare", 10, soft=True)
    for number, family in enumerate(report.families):
        y = 34 + _ROW * number
        sketch.text(4, y + 4, family.label, 12, bold=True)
        if not family.checked:
            sketch.text(510, y + 4, family.why_not, 11, "end", soft=True)
            continue
        sketch.text(70, y + 4, SEVERITIES[family.severity], 11)
        if family.ruler_share is None or family.spare is None:
            continue
        long = family.ruler_share * reach
        if long >= 0:
            sketch.box(zero, y - 5, long, 10, SOFT)
        else:
            sketch.box(zero + long, y - 5, -long, 10, None, INK, hatched=True)
        if family.ruler_p05 is not None and family.ruler_p95 is not None:
            low, high = zero + family.ruler_p05 * reach, zero + family.ruler_p95 * reach
            sketch.line(low, y, high, y)
            sketch.line(low, y - 4, low, y + 4)
            sketch.line(high, y - 4, high, y + 4)
        if family.worst_case is not None:
            at = zero + family.worst_case.ruler_share * reach
            sketch.box(at - 2, y - 7, 4, 14, PAPER, INK)
        side = "spare" if family.spare >= 0 else "short"
        told = say("{spare} {side}", spare=_spare(family), side=side)
        sketch.text(510, y + 4, units.text(told), 11, "end")
    sketch.line(zero, 20, zero, 24 + _ROW * len(report.families), 2)
    return sketch


def stack(report: Report, units: DisplayUnits) -> Sketch | None:
    """The stack from the side, to scale, in its case; None without a board."""
    fit = report.fit
    if fit.board_length_mm is None or not fit.boxes:
        return None
    lines = [(b.x_mm, b.z_mm, b.dx_mm, b.dz_mm, b.label, b.look) for b in fit.boxes[:_MOST_BOXES]]
    left, right = min(x for x, *_ in lines), max(x + dx for x, _, dx, *_ in lines)
    low, high = min(e[1] for e in lines), max(e[1] + e[3] for e in lines)
    shell = fit.case
    if shell is not None:
        left, right = shell.inner_x_mm, shell.inner_x_mm + shell.inner_length_mm
        high = max(high, shell.max_above_mm)
        low = min(low, -(fit.board_thickness_mm or 0) - shell.max_below_mm)
    scale = min(420 / (right - left), 220 / (high - low), 6.0)
    sketch = Sketch("Side view", 520, (high - low) * scale + 46)

    def at(x_mm: float, z_mm: float) -> tuple[float, float]:
        return 12 + (x_mm - left) * scale, 14 + (high - z_mm) * scale

    if shell is not None:
        x, y = at(left, shell.max_above_mm)
        room = shell.max_above_mm + (fit.board_thickness_mm or 0) + shell.max_below_mm
        sketch.box(
            x,
            y,
            shell.inner_length_mm * scale,
            room * scale,
            None,
            SOFT if shell.open else INK,
            dashed=shell.open,
            line=2.5,
        )
    last = -100.0
    for x_mm, z_mm, dx_mm, dz_mm, label, look in sorted(lines, key=lambda e: -e[1]):
        x, y = at(x_mm, z_mm + dz_mm)
        layer = look in ("pcb", "drive", "sink", "fan")
        tall = max(1.5, dz_mm * scale)
        sketch.box(x, y, dx_mm * scale, tall, SOFT if look == "pcb" else PALE, INK, line=0.8)
        if layer:
            last = max(y + tall / 2 + 4, last + 13)
            beside = at(right, 0)[0] + 8
            sketch.thread(((x + dx_mm * scale, y + tall / 2), (beside - 2, last - 4)))
            sketch.text(beside, last, cut(label, 516 - beside, 10.5), 10.5)
    x, y = at(left, low)
    told = (
        say("To scale; no case.")
        if shell is None
        else say(
            "To scale; {case}, inner length {length}.",
            case=shell.label,
            length=words.stated_mm(shell.inner_length_mm),
        )
    )
    sketch.text(x, y + 20, units.text(told), 10, soft=True)
    return sketch


def above(report: Report, units: DisplayUnits) -> Sketch | None:
    """The kit from above, to scale; None without a board."""
    fit = report.fit
    if fit.board_length_mm is None or not fit.boxes:
        return None
    shell = fit.case
    flats = [*fit.boxes, *fit.beside, *fit.plugs][:_MOST_BOXES]
    left, right = min(b.x_mm for b in flats), max(b.x_mm + b.dx_mm for b in flats)
    low, high = min(b.y_mm for b in flats), max(b.y_mm + b.dy_mm for b in flats)
    if shell is not None:
        left, low = min(left, shell.inner_x_mm), min(low, shell.inner_y_mm)
        right = max(right, shell.inner_x_mm + shell.inner_length_mm)
        high = max(high, shell.inner_y_mm + shell.inner_width_mm)
    scale = min(480 / (right - left), 300 / (high - low), 5.0)
    sketch = Sketch("Top view", 520, (high - low) * scale + 30)

    def at(x_mm: float, y_mm: float) -> tuple[float, float]:
        return 12 + (x_mm - left) * scale, 12 + (high - y_mm) * scale

    if shell is not None:
        x, y = at(shell.inner_x_mm, shell.inner_y_mm + shell.inner_width_mm)
        sketch.box(
            x,
            y,
            shell.inner_length_mm * scale,
            shell.inner_width_mm * scale,
            None,
            INK,
            dashed=shell.open,
            line=2.5,
        )
    named: list[_Named] = []
    for box in sorted(flats, key=lambda b: b.z_mm + b.dz_mm):
        x, y = at(box.x_mm, box.y_mm + box.dy_mm)
        is_room, is_board = box.look == "room", box.look == "pcb"
        wide, tall = box.dx_mm * scale, box.dy_mm * scale
        fill = None if is_room else SOFT if is_board else PALE
        sketch.box(x, y, wide, tall, fill, INK, dashed=is_room, line=0.8)
        named.append(_Named(box.label, x, y, wide, tall, is_board, is_room))
    _write_names(sketch, named)
    return sketch


class _Named(NamedTuple):
    """A rectangle that was drawn, and what it is called; `dark` where it takes light letters, and
    `hollow` where what lies below it can be seen.
    """

    label: str
    x: float
    y: float
    width: float
    height: float
    dark: bool = False
    hollow: bool = False

    def covers(self, other: _Named) -> bool:
        """Whether something of the other lies under or over this one."""
        return (
            self.x < other.x + other.width
            and other.x < self.x + self.width
            and self.y < other.y + other.height
            and other.y < self.y + self.height
        )

    def spots(self) -> Iterator[_Named]:
        """Where in it its name may stand, the middle first; nowhere where it is too small."""
        wide, tall = width_of(self.label, _NAME_SIZE) + 6, _NAME_SIZE + 4
        if wide > self.width or tall > self.height:
            return
        for down, across in product((0.5, 0.0, 1.0), repeat=2):
            x, y = self.x + across * (self.width - wide), self.y + down * (self.height - tall)
            yield _Named(self.label, x, y, wide, tall)

    def beside(self) -> _Named:
        """Where its name may stand to the right of it."""
        wide, tall = width_of(self.label, _NAME_SIZE) + 6, _NAME_SIZE + 4
        middle = self.y + (self.height - tall) / 2
        return _Named(self.label, self.x + self.width + 1, middle, wide, tall)


_NAME_SIZE = 9.5


def _write_names(sketch: Sketch, drawn: list[_Named]) -> None:
    """Write in each rectangle what it is called, or beside it, where that hides nothing."""
    written: list[_Named] = []
    for number, under in enumerate(drawn):
        if not under.label:
            continue
        over = [one for one in drawn[number + 1 :] if not one.hollow]
        inside = (face for face in under.spots() if not any(o.covers(face) for o in over))
        beside = under.beside()
        others = [one for one in drawn if one is not under and not one.hollow]
        is_clear = beside.x + beside.width < sketch.width and not any(
            other.covers(beside) for other in others
        )
        spots = [*inside, *([beside] if is_clear else [])]
        face = next((s for s in spots if not any(w.covers(s) for w in written)), None)
        if face is not None:
            written.append(face)
            foot = face.y + face.height - 4.5
            light = under.dark and face is not beside
            sketch.text(face.x + 3, foot, under.label, _NAME_SIZE, light=light)


def power(report: Report, units: DisplayUnits) -> Sketch | None:
    """The DC tree from the sources down, a row for each rail and each lead as thick as its current,
    in the hardest planned state; None where nothing is fed.
    """
    tree = report.power
    if not tree.nodes or not tree.states:
        return None
    state = max(range(len(tree.states)), key=lambda n: (tree.states[n].hard, tree.source_w[n]))
    children: dict[str | None, list[PowerNode]] = {}
    for node in tree.nodes:
        children.setdefault(node.parent, []).append(node)
    rows: list[tuple[PowerNode, int, int]] = []  # with its depth, and the row that it hangs on
    walk = [(node, 0, -1) for node in reversed(children.get(None, []))]
    while walk:
        node, depth, above_row = walk.pop()
        walk += [(child, depth + 1, len(rows)) for child in reversed(children.get(node.id, []))]
        rows.append((node, depth, above_row))
    step = min(18.0, 190 / (1 + max(depth for _, depth, _ in rows)))
    sketch = Sketch(f"Power, {_name(tree.states[state].label)}", 520, 30 + _RAIL_ROW * len(rows))
    # Behind a converter to less volts more flows than into it.
    amps = [(node.current_a[state], node.input_a[state]) for node in tree.nodes]
    most_a = max(max(pair) for pair in amps) or 1.0
    for at, head in ((_VOLTS_AT, "V"), (_AMPS_AT, "A")):
        sketch.text(at, 12, head, 10, "end", soft=True)
    for number, (node, depth, above_row) in enumerate(rows):
        x, y = 10 + step * depth, 24 + _RAIL_ROW * number
        if above_row >= 0:
            drawn, down = 0.8 + 4 * node.input_a[state] / most_a, x - step + 3
            top = 24 + _RAIL_ROW * above_row + 5
            sketch.thread(((down, top), (down, y), (x, y)), drawn)
        sketch.box(x, y - 4.5, 6, 9, INK)
        name = cut(node.label, _VOLTS_AT - 40 - x, 10)
        sketch.text(x + 10, y + 3.5, name, 10, bold=not depth)
        sketch.text(_VOLTS_AT, y + 3.5, units.text(Figure(node.voltage_v[state], "", 2)), 10, "end")
        sketch.text(_AMPS_AT, y + 3.5, units.text(Figure(node.current_a[state], "", 2)), 10, "end")
        sketch.box(_AMPS_AT + 8, y - 2.5, 76 * node.current_a[state] / most_a, 5, CABLE)
    return sketch


_RAIL_ROW, _VOLTS_AT, _AMPS_AT = 16.0, 372.0, 424.0


def heat(report: Report, units: DisplayUnits) -> Sketch | None:
    """What is how hot, on one axis, in the hardest planned state; None where it is not known."""
    found = report.heat
    if found.why_not or not found.nodes or not found.states:
        return None
    hard = [n for n, state in enumerate(found.states) if state.hard] or [0]
    state = max(hard, key=lambda n: max(node.temp_c[n] for node in found.nodes))
    temps = [node.temp_c[state] for node in found.nodes]
    limits = [node.limit_c for node in found.nodes if node.limit_c is not None]
    low = min(found.ambient_c, *temps) - 5
    high = max([*temps, *limits, found.ambient_c + 10]) + 5
    scale = 344 / (high - low)
    sketch = Sketch(f"Heat, {_name(found.states[state].label)}", 520, 46 + 22 * len(found.nodes))
    at = 166.0
    outside = at + (found.ambient_c - low) * scale
    foot = 26 + 22 * len(found.nodes)
    sketch.line(outside, 18, outside, foot, dashed=True)
    sketch.text(
        outside,
        12,
        units.text(say("ambient {temp}", temp=words.counted(found.ambient_c, "°C"))),
        10,
        "middle",
        soft=True,
    )
    for number, node in enumerate(found.nodes):
        y = 30 + 22 * number
        here = at + (node.temp_c[state] - low) * scale
        sketch.text(4, y + 4, cut(node.label, 160, 10.5), 10.5)
        sketch.box(min(outside, here), y - 5, abs(here - outside), 10, PALE, SOFT, line=0.6)
        sketch.text(here + 4, y + 4, units.text(words.degrees(node.temp_c[state])), 10.5, bold=True)
        if node.limit_c is not None:
            x = at + (node.limit_c - low) * scale
            sketch.line(x, y - 9, x, y + 9, 2)
    told = say("Vertical lines are limits.")
    if found.hottest_ambient_c is not None:
        told += say(" OK up to {temp} ambient.", temp=words.degrees(found.hottest_ambient_c))
    sketch.text(4, foot + 14, units.text(told), 10, soft=True)
    return sketch


def money(report: Report, units: DisplayUnits) -> Sketch | None:
    """Where the money goes, part by part, and the budget; None where nothing costs anything."""
    cost = report.cost
    paid = [
        (line.quantity, line.name, ROLES[line.role], entry.to_pay)
        for line, entry in zip(report.lines, cost.lines, strict=True)
        if entry.to_pay is not None and entry.to_pay > 0
    ]
    if not paid:
        return None
    paid.sort(key=lambda entry: -entry[3])
    most = max(paid[0][3], Decimal(1))
    sketch = Sketch("Cost", 520, 40 + 20 * len(paid))
    for number, (count, name, role, to_pay) in enumerate(paid):
        y = 18 + 20 * number
        sketch.text(4, y + 4, cut(f"{count} × {name}", 176, 10.5), 10.5)
        sketch.text(186, y + 4, role, 9.5, soft=True)
        sketch.box(270, y - 5, float(to_pay / most) * 160, 10, PALE, SOFT, line=0.6)
        sketch.text(510, y + 4, units.text(words.money(to_pay, cost.currency)), 10.5, "end")
    y = 18 + 20 * len(paid)
    told = say("Total {total}", total=words.money(cost.total, cost.currency))
    if cost.budget is not None:
        told += say(" of {budget}", budget=words.money(cost.budget, cost.currency))
    sketch.text(510, y + 8, units.text(told), 11, "end", bold=True)
    return sketch


_WAY_ROWS, _MOST_TRANSFERS = 56.0, 20


def data(report: Report, units: DisplayUnits) -> Sketch | None:
    """Each transfer on its data path: channels as tall as their rates, filled by what passes.

    None where nothing moves.
    """
    transfers = [
        moved
        for situation in report.data.situations
        if not situation.worst_case
        for moved in situation.moved
    ][:_MOST_TRANSFERS]
    if not transfers:
        return None
    sketch = Sketch("Data", 520, 8 + (_WAY_ROWS + 30) * len(transfers))
    for number, moved in enumerate(transfers):
        top = 16 + (_WAY_ROWS + 30) * number
        told = say("{name}: {rate}", name=moved.text, rate=words.rate(moved.rate_mb_s))
        if moved.minutes is not None:
            told += say(", {time}", time=words.minutes(moved.minutes))
        if moved.allowed_min is not None:
            told += say(" of {time} allowed", time=words.minutes(moved.allowed_min))
        sketch.text(4, top, units.text(told), 10.5, bold=True)
        step = 500 / len(moved.links)
        middle = top + 8 + _WAY_ROWS / 2 - 8
        for place, link in enumerate(moved.links):
            x, tall = 8 + step * place, _channel_height(link.mb_s)
            filled = tall * min(1.0, link.taken_mb_s / link.mb_s)
            sketch.box(x, middle + tall / 2 - filled, step, filled, CABLE)
            thick = 2.2 if link.id == moved.bottleneck else 0.8
            for y in (middle - tall / 2, middle + tall / 2):
                sketch.line(x, y, x + step, y, thick)
            sketch.box(x - 2, middle - 19, 4, 38, INK)
            name = cut(link.label, step - 6, 8.5)
            sketch.text(x + step / 2, middle + 29, name, 8.5, "middle")
            figures = units.text(words.rate(link.mb_s))
            if link.id == moved.bottleneck:
                figures += ", bottleneck"
            figures = cut(figures, step - 6, 8)
            sketch.text(x + step / 2, middle + 39, figures, 8, "middle", soft=True)
        sketch.box(506, middle - 19, 4, 38, INK)
    return sketch


def _channel_height(rate_mb_s: float) -> float:
    """Between 6 and 34 for rates from 4 to 1200 MB/s, by decades."""
    share = log(max(rate_mb_s, 4) / 4) / log(1200 / 4)
    return 6 + 28 * min(1.0, share)


def lifetime(report: Report, units: DisplayUnits) -> Sketch | None:
    """Years of what wears, against those that are wanted; None where nothing does."""
    found = report.lifetime
    if not found.wears:
        return None
    wanted = found.wanted_years
    near = [wear.years for wear in found.wears if wear.years <= 3 * wanted]
    most = max(2 * wanted, *(1.15 * years for years in near), 2.0)
    start, scale = 170.0, 230 / most
    rows = found.wears[:_MOST_BOXES]
    sketch = Sketch("Lifetime", 520, 40 + 20 * len(rows))
    for number, wear in enumerate(rows):
        y = 30 + 20 * number
        sketch.text(4, y + 4, cut(wear.label, start - 10, 10.5), 10.5)
        outlasts = wanted <= wear.years == wear.most_years
        ends = most if outlasts else min(wear.years, most)
        low = wear.years if wear.years_p05 is None else wear.years_p05
        sure = most if outlasts and low == wear.years else min(ends, low)
        sketch.box(start, y - 4, sure * scale, 8, SOFT)
        sketch.box(start + sure * scale, y - 1.5, (ends - sure) * scale, 3, SOFT)
        told = words.years(wear.years, most_y=wear.most_years)
        line = say("{years}, {how}", years=told, how=wear.how)
        sketch.text(start + 230 + 12, y + 4, units.text(line), 10)
    x = start + wanted * scale
    sketch.line(x, 18, x, 24 + 20 * len(rows), 2)
    sketch.text(
        x,
        12,
        units.text(say("required {years}", years=words.years(wanted))),
        10,
        "middle",
        soft=True,
    )
    return sketch


DRAWINGS: dict[str, Callable[[Report, DisplayUnits], Sketch | None]] = {
    "margins": margins,
    "stack": stack,
    "above": above,
    "power": power,
    "heat": heat,
    "data": data,
    "lifetime": lifetime,
    "money": money,
}
"""The drawings by the name under which they are asked for."""


def _name(state: str) -> str:
    return state.removesuffix(" (mean)")


def _spare(family: FamilyReport) -> Figure:
    """The spare beside a margin: three digits that mean something, and none beyond."""
    value = abs(family.spare or 0.0)
    whole = value >= 100 or family.unit == "dB(A)"
    decimals = 0 if whole else 1 if value >= 10 or family.unit == "years" else 2
    if family.id == "cost":
        return words.money(round(value, 2), family.unit)
    return Figure(value, family.unit, decimals, is_difference=True)
