"""Heat that passes from node to node, at nominal figures, for the drawing of it."""

from __future__ import annotations

from cobblewort.core.aspects.heat.enclosure import exchange_w_k, inside_w_k, outside_w_k
from cobblewort.core.aspects.heat.model import HeatDetail
from cobblewort.core.figures.arrays import FloatArray, Quantity
from cobblewort.core.figures.one_or_many import nominal


def flows_w(detail: HeatDetail) -> dict[tuple[str, str], FloatArray]:
    """By the ids of two nodes, shape (states,); `outside` is a node too, and `other` is what gives
    off heat without being one. What leaves adds up to what is given off.
    """
    temps, body, box = detail.temps, detail.body, detail.box
    air_name, wall_name = ("outside", "outside") if box is None else ("inside", "wall")
    flows: dict[tuple[str, str], FloatArray] = {}

    def add(start: str, end: str, conductance: Quantity, delta_k: FloatArray) -> None:
        flow: FloatArray = (conductance * delta_k)[:, 0]
        flows[start, end] = flows.get((start, end), 0.0) + flow

    die, board, air, wall = temps.die_k, temps.board_k, temps.air_k, temps.inner_k
    add("die", "board", body.die_board_w_k, die - board)
    if body.on_wall and body.die_sink_w_k is not None:
        add("die", wall_name, body.die_sink_w_k, die - wall)
    elif body.sink is not None and body.die_sink_w_k is not None:
        add("die", "sink", body.die_sink_w_k, die - temps.sink_k)
        add("sink", air_name, body.sink.air_w_k, temps.sink_k - air)
        add("sink", wall_name, body.sink.wall_w_k, temps.sink_k - wall)
    add("board", air_name, body.board.air_w_k, board - air)
    add("board", wall_name, body.board.wall_w_k, board - wall)
    for n, warm in enumerate(detail.warm):
        # What it takes up of its carrier's heat is told where that is given off.
        alone_k = temps.body_k[n] - detail.warmth_w[n] / nominal(warm.path.total_w_k)
        to_wall = nominal(warm.path.wall_w_k) * (alone_k - wall)
        add(warm.id, wall_name, 1.0, to_wall)
        add(warm.id, air_name, 1.0, temps.body_w[n] - to_wall)
    add("other", air_name, 1.0, detail.air_w)
    if box is not None:
        ambient = detail.ambient_k
        add("inside", "wall", inside_w_k(box, air, wall), air - wall)
        draught, forced = exchange_w_k(box, air, ambient)
        add("inside", "outside", draught + forced, air - ambient)
        add("wall", "outside", outside_w_k(box, temps.outer_k, ambient), temps.outer_k - ambient)
    return flows
