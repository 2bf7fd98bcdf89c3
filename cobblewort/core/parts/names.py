"""What the figures of a part are called, and in which unit they count."""

from __future__ import annotations

WORDS = {
    # What can stand in a part's document, by the last step of its path.
    "absorptance": "the share of sunlight absorbed",
    "above_mm": "the tallest component above",
    "ambient_max_c": "the maximum ambient",
    "ambient_min_c": "the minimum ambient",
    "advertise_a": "the advertised current that lifts the limit",
    "advertises_a": "the advertised current",
    "below_mm": "the tallest component below",
    "bend_mm": "the tightest bend radius",
    "brownout_v": "the brown-out voltage",
    "capacity_gb": "the capacity",
    "clear_mm": "the clearance",
    "contacts_ohm": "the resistance of the contacts",
    "derate_share_k": "the derating per kelvin",
    "efficiency": "the efficiency of the converter",
    "emissivity": "the emissivity of the wall",
    "fins": "the convection factor of the fins",
    "flow_m3_h": "the air flow of the fan",
    "fan_exchange_share": "the share of air that a fan exchanges through the vents",
    "endurance_tb": "the write endurance (TBW)",
    "endurance_tb_100gb": "the write endurance per 100 GB",
    "undervoltage_v": "the undervoltage mark",
    "free_flow_m3_h": "the free air flow of the fan",
    "full_to_c": "the full output temperature",
    "gauge_awg": "the gauge of the cable",
    "height_mm": "the height",
    "idle": "the draw when idle",
    "inner_height_mm": "the inner height",
    "inner_length_mm": "the inner length",
    "inner_width_mm": "the inner width",
    "interface_mm": "the thickness of the thermal pad",
    "interface_w_mk": "the conductivity of the thermal pad",
    "joint_k_w": "the resistance from the processor to the case",
    "cable_ohm": "the resistance of the cable",
    "length_m": "the length of the cable",
    "length_mm": "the length",
    "limit_a": "the current limit",
    "limit_c": "the maximum temperature",
    "limit_lifted_a": "the limit lifted by a setting",
    "limit_unadvertised_a": "the lower current limit",
    "limit_w": "the power limit",
    "mass_g": "the mass",
    "noise_dba": "the noise at 1 m",
    "marked_a": "the current allowed by its marking",
    "max_above_mm": "the clearance above the board",
    "max_below_mm": "the clearance below the board",
    "out_v": "the output voltage of the converter",
    "own": "the draw",
    "path_ohm": "the resistance to the ports",
    "peak": "the draw at peak load",
    "amount": "the amount",
    "pin_ma": "the current limit of a GPIO pin",
    "radio_db": "the radio loss through the case",
    "r_air_k_w": "the thermal resistance to air",
    "r_ba_k_w": "the thermal resistance from board to air",
    "r_db_k_w": "the thermal resistance from processor to board",
    "r_fan_k_w": "the thermal resistance of the heat sink with its fan",
    "r_jc_k_w": "the thermal resistance from processor to its surface",
    "r_still_k_w": "the thermal resistance of the heat sink in still air",
    "parity_mb_s": "the parity rate of one core",
    "rated_a": "the rated current",
    "read_mb_s": "the read rate",
    "set_v": "the set voltage",
    "share": "the share of the heat",
    "soc_share_idle": "the processor's share of power when idle",
    "soc_share_peak": "the processor's share of power at peak load",
    "soc_side_mm": "the side of the processor",
    "soc_top_mm": "the height of the processor",
    "soc_x_mm": "the position of the processor along the board",
    "soc_y_mm": "the position of the processor across the board",
    "start": "the draw at power-up",
    "tabs_mm": "the size of the tabs on its walls",
    "thickness_mm": "the thickness",
    "total_ma": "the current limit of all GPIO pins",
    "throttle_c": "the throttle temperature",
    "vent_high_cm2": "the area of the high vents",
    "vent_low_cm2": "the area of the low vents",
    "vent_rise_mm": "the height between the vents",
    "wall_g_cm3": "the density of the wall",
    "wall_mm": "the thickness of the wall",
    "wall_w_mk": "the conductivity of the wall",
    "width_mm": "the width",
    "normal": "the draw at normal load",
    "write_mb_s": "the write rate",
    "bridge_mb_s": "the rate of the bridge",
    "slot_mb_s": "the rate of the card slot",
    "radio_mb_s": "the Wi-Fi rate through one wall",
    "network_mbit_s": "the Ethernet rate",
    "encrypt_mb_s": "the encryption rate of one core",
    "checksum_mb_s": "the checksum rate of one core",
    "parity_path_mb_s": "the write rate of a parity array",
    "sustained_mb_s": "the write rate with a full cache",
    "cache_gb": "the size of the cache",
    "pause_s": "the longest pause",
    "settle_ms": "the time per file",
    "fails_pct": "the failures per hundred and year",
    "life_h": "the rated life in use",
    "life_y": "the rated life",
    "halves_k": "the temperature rise that halves its life",
    "warmer_k": "the temperature rise over the air around it",
    "at_c": "the temperature of the rated life",
}

_UNITS = {
    "_share_k": "1/K", "_w_mk": "W/(m K)", "_k_w": "K/W", "_m3_h": "m³/h", "_cm2": "cm²",
    "_mb_s": "MB/s", "_mbit_s": "Mbit/s", "_pct": "%", "_ms": "ms",
    "life_h": "h", "life_y": "years",
    "pause_s": "s", "halves_k": "K", "warmer_k": "K", "_tb": "TB", "_100gb": "TB",
    "_ma": "mA", "_ohm": "Ω", "_awg": "AWG", "_mm": "mm", "_gb": "GB", "_db": "dB",
    "_dba": "dB(A)", "_g_cm3": "g/cm³", "_g": "g",
    "_a": "A", "_v": "V", "_w": "W",
    "_c": "°C", "_m": "m",
}  # fmt: skip


def figure_words(path: str) -> str:
    """A field as people say it, by the last step of its path: `the throttle temperature`."""
    name = path.rsplit(".", 1)[-1]
    return WORDS.get(name, name.replace("_", " "))


def is_named(path: str) -> bool:
    """Whether the last step of a path is a figure that people can be asked for."""
    return path.rsplit(".", 1)[-1] in WORDS


def unit_of(path: str) -> str:
    """The unit that the name of a field carries; none for shares and for loads, whose part says."""
    ending = max((end for end in _UNITS if path.endswith(end)), key=len, default="")
    return _UNITS.get(ending, "")
