"""What the figures of a part are called, and in which unit they count."""

from __future__ import annotations

_WORDS = {
    # What can stand in a part's document, by the last step of its path.
    "absorptance": "the share of the sun it takes in",
    "above_mm": "the tallest part above",
    "ambient_max_c": "the hottest day it is rated for",
    "ambient_min_c": "the coldest day it is rated for",
    "advertise_a": "the announcement that lifts its limit",
    "advertises_a": "the current it announces",
    "below_mm": "the tallest part below",
    "bend_mm": "the tightest bend",
    "brownout_v": "the brown-out voltage",
    "capacity_gb": "the room on it",
    "clear_mm": "the free height",
    "contacts_ohm": "the contacts' resistance",
    "derate_share_k": "what it loses for each kelvin above",
    "efficiency": "the converter's efficiency",
    "emissivity": "the wall's emissivity",
    "fins": "what fins multiply its convection by",
    "flow_m3_h": "the fan's flow",
    "fan_exchange_share": "how much a fan moves through the vents",
    "endurance_tb": "what may be written to it",
    "endurance_tb_100gb": "what may be written to it for each 100 GB",
    "undervoltage_v": "the low-voltage flag",
    "free_flow_m3_h": "the fan's flow",
    "full_to_c": "the warmth up to which it gives all",
    "gauge_awg": "the lead's gauge",
    "height_mm": "the height",
    "idle": "the draw when idle",
    "inner_height_mm": "the height inside",
    "inner_length_mm": "the length inside",
    "inner_width_mm": "the width inside",
    "interface_mm": "the pad's thickness",
    "interface_w_mk": "the pad",
    "joint_k_w": "the way from the die to its wall",
    "cable_ohm": "the lead's resistance",
    "length_m": "the lead's length",
    "length_mm": "the length",
    "limit_a": "the limit",
    "limit_c": "the warmth it stands",
    "limit_lifted_a": "the limit that a setting lifts it to",
    "limit_unadvertised_a": "the lower limit",
    "limit_w": "the limit",
    "mass_g": "its weight",
    "noise_dba": "how loud it is at 1 m",
    "marked_a": "what its marking lets through",
    "max_above_mm": "the room above the board",
    "max_below_mm": "the room below the board",
    "out_v": "the voltage behind the converter",
    "own": "the draw",
    "path_ohm": "the way to the sockets",
    "peak": "the draw at its peak",
    "amount": "how much of it",
    "pin_ma": "what one header pin gives",
    "radio_db": "what it takes from a radio inside",
    "r_air_k_w": "the resistance to air",
    "r_ba_k_w": "the resistance board to air",
    "r_db_k_w": "the resistance die to board",
    "r_fan_k_w": "the sink's resistance under its fan",
    "r_jc_k_w": "the resistance die to case",
    "r_still_k_w": "the sink's resistance in still air",
    "parity_mb_s": "how fast one core works through parity",
    "rated_a": "the rating",
    "read_mb_s": "how fast it reads",
    "set_v": "the set voltage",
    "share": "the share of the heat",
    "soc_share_idle": "the processor's share when idle",
    "soc_share_peak": "the processor's share at peak",
    "soc_side_mm": "the die's size",
    "soc_top_mm": "the die's height",
    "soc_x_mm": "the die's place along the board",
    "soc_y_mm": "the die's place across the board",
    "start": "the draw at the start",
    "tabs_mm": "what tabs on its walls take until they are cut",
    "thickness_mm": "the thickness",
    "total_ma": "what all header pins give together",
    "throttle_c": "the throttle point",
    "vent_high_cm2": "the high vents",
    "vent_low_cm2": "the low vents",
    "vent_rise_mm": "the height between the vents",
    "wall_g_cm3": "the wall's density",
    "wall_mm": "the wall's thickness",
    "wall_w_mk": "the wall's conductivity",
    "width_mm": "the width",
    "normal": "the draw while it works",
    "write_mb_s": "how fast it writes",
    "bridge_mb_s": "what its bridge lets by",
    "slot_mb_s": "what its card slot moves",
    "radio_mb_s": "what its radio moves through one wall",
    "network_mbit_s": "the rate of its network socket",
    "encrypt_mb_s": "how fast one core encrypts",
    "checksum_mb_s": "how fast one core adds up checksums",
    "parity_path_mb_s": "what a parity array of it takes in",
    "sustained_mb_s": "how fast it writes when its cache is full",
    "cache_gb": "its cache",
    "pause_s": "how long it may stand still",
    "settle_ms": "what each file costs on it",
    "fails_pct": "how many of a hundred fail in a year",
    "life_h": "how long it lasts in use",
    "life_y": "how long it lasts",
    "halves_k": "how much warmer halves its life",
    "warmer_k": "how much warmer it is than the air around it",
    "at_c": "the warmth at which it lasts so long",
}

_UNITS = {
    "_share_k": "1/K", "_w_mk": "W/(m K)", "_k_w": "K/W", "_m3_h": "m³/h", "_cm2": "cm²",
    "_mb_s": "MB/s", "_mbit_s": "Mb/s", "_pct": "%", "_ms": "ms", "life_h": "h", "life_y": "years",
    "pause_s": "s", "halves_k": "K", "warmer_k": "K", "_tb": "TB", "_100gb": "TB",
    "_ma": "mA", "_ohm": "Ω", "_awg": "AWG", "_mm": "mm", "_gb": "GB", "_db": "dB",
    "_dba": "dB(A)", "_g_cm3": "g/cm³", "_g": "g",
    "_a": "A", "_v": "V", "_w": "W",
    "_c": "°C", "_m": "m",
}  # fmt: skip


def figure_words(path: str) -> str:
    """A field as people say it, by the last step of its path: `the throttle point`."""
    name = path.rsplit(".", 1)[-1]
    return _WORDS.get(name, name.replace("_", " "))


def is_named(path: str) -> bool:
    """Whether the last step of a path is a figure that people can be asked for."""
    return path.rsplit(".", 1)[-1] in _WORDS


def unit_of(path: str) -> str:
    """The unit that the name of a field carries; none for shares and for loads, whose part says."""
    ending = max((end for end in _UNITS if path.endswith(end)), key=len, default="")
    return _UNITS.get(ending, "")
