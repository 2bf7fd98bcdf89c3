"""Figures in sentences: one form for each unit."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from decimal import Decimal
from math import floor, log10

_CONNECTOR_WORDS = {
    "usb-a": "USB-A", "usb-c": "USB-C", "micro-usb": "micro-USB", "flat-16": "flat-cable",
    "m2": "M.2", "memory-card": "card", "fan-4": "4-pin fan", "camera-15": "15-way camera",
    "camera-22": "22-way camera", "sata": "SATA", "header-5v": "header 5 V",
    "header-3v3": "header 3.3 V", "video-full": "full-size video", "video-mini": "mini video",
    "video-micro": "micro video", "aerial": "aerial",
}  # fmt: skip
_SIGNS = {"EUR": "€"}
LONGEST_Y = 60.0
"""Nobody believes a longer life: what would last longer is told as this, more than plans can want.
[a]"""


def connector(name: str) -> str:
    """How people call a connector."""
    return _CONNECTOR_WORDS.get(name, name)


def _figure(value: float, decimals: int, more: int) -> str:
    """At most so many decimals, and three digits of meaning; `more` of both where two would read
    the same.
    """
    before = len(str(int(abs(value))))
    return f"{value:.{max(0, min(decimals, 3 - before)) + more}f}"


def amps(current_a: float, more: int = 0) -> str:
    """`1.20 A`."""
    return f"{_figure(current_a, 2, more)} A"


def volts(voltage_v: float, more: int = 0) -> str:
    """`4.83 V`."""
    return f"{_figure(voltage_v, 2, more)} V"


def watts(power_w: float, more: int = 0) -> str:
    """`5.3 W`."""
    return f"{_figure(power_w, 1, more)} W"


def percent(share: float) -> str:
    """`75 %`, with the space that ISO 80000-1 wants."""
    return f"{100 * share:.0f} %"


def share(of_all: float) -> str:
    """`94 %`, never more than it is: 94.9 % lies below a threshold of 95."""
    return f"{int(100 * of_all + 1e-9)} %"


def rate(mb_s: float, more: int = 0) -> str:
    """`111 MB/s`, `3.1 MB/s`."""
    return f"{_whole(mb_s, more)} MB/s"


def minutes(time_min: float, more: int = 0) -> str:
    """`31 min`, `12 s` below a minute, `3.5 h` from two hours on, `12 days` from three days on."""
    if time_min >= 3 * 24 * 60:
        return f"{_whole(time_min / 1440, more)} days"
    if time_min >= 120:
        return f"{_whole(time_min / 60, more)} h"
    if time_min < 1:
        return f"{_whole(time_min * 60, more)} s"
    return f"{_whole(time_min, more)} min"


def _whole(value: float, more: int) -> str:
    """One decimal, and none where it would be a nought."""
    return _figure(value, 1, more).removesuffix(".0")


def years(time_y: float, more: int = 0, most_y: float = LONGEST_Y) -> str:
    """`4.6 years`, `5 years`, `over 60 years`: from `most_y` on nobody tells how long."""
    if time_y >= most_y:
        return f"over {most_y:g} years"
    return f"{_whole(time_y, more)} years"


def size(capacity_gb: float) -> str:
    """`480 GB`, `1.5 TB`, `340 MB`: as labels count."""
    if capacity_gb >= 1000:
        return f"{_meaning(capacity_gb / 1000, 4)} TB"
    if capacity_gb >= 1 or capacity_gb == 0:
        return f"{_meaning(capacity_gb, 3)} GB"
    return f"{_meaning(capacity_gb * 1000, 3)} MB"


def daily(capacity_gb: float) -> str:
    """`1.2 GB a day`: two digits of meaning, for that is how well anybody knows it."""
    if capacity_gb < 0.1:
        return f"{_meaning(capacity_gb * 1000, 2)} MB a day"
    return f"{_meaning(capacity_gb, 2)} GB a day"


def _meaning(value: float, digits: int) -> str:
    """So many digits of meaning, never in powers of ten."""
    if value == 0:
        return "0"
    decimals = digits - 1 - floor(log10(abs(value)))
    text = f"{round(value, decimals):.{max(0, decimals)}f}"
    return text.rstrip("0").removesuffix(".") if "." in text else text


def mm(length_mm: float, more: int = 0) -> str:
    """`12.5 mm`."""
    return f"{_figure(length_mm, 1, more)} mm"


def degrees(temp_c: float, more: int = 0) -> str:
    """`79 °C`."""
    return f"{temp_c:.{more}f} °C"


def apart(form: Callable[[float, int], str], value: float, limit: float) -> tuple[str, str]:
    """A value and its limit, with up to two more digits where they would read the same."""
    for more in range(3):
        told = form(value, more), form(limit, more)
        if told[0] != told[1]:
            return told
    return form(value, 0), form(limit, 0)


def money(amount: Decimal | float, currency: str) -> str:
    """`€ 12.50`, `€ 12`: no cents where there are none."""
    text = f"{Decimal(str(amount)):.2f}".removesuffix(".00")
    return f"{_SIGNS.get(currency, currency)} {text}"


def count(number: int, noun: str) -> str:
    """`1 sheet`, `2 sheets`."""
    return f"{number} {noun}{'' if number == 1 else 's'}"


def opening(text: str) -> str:
    """A name as it opens a sentence."""
    return text[:1].upper() + text[1:]


def within(text: str) -> str:
    """A label as it stands inside a sentence; abbreviations stay as they are."""
    return text if text[1:2].isupper() else text[:1].lower() + text[1:]


def natural(label: str) -> str:
    """A label with its qualifier in front: `USB sockets, shared` is `shared USB sockets`."""
    noun, _, qualifier = label.partition(", ")
    return f"{qualifier} {within(noun)}" if qualifier else within(noun)


def listed(words: Iterable[str]) -> str:
    """`a, b and c`."""
    *first, last = list(words)
    return f"{', '.join(first)} and {last}" if first else last


def few(words: Iterable[str], most: int = 4) -> str:
    """`a, b and c`, each once; beyond `most` the rest is counted: `a, b, c and 7 others`."""
    names = list(dict.fromkeys(words))
    if len(names) <= most:
        return listed(names)
    return f"{', '.join(names[: most - 1])} and {len(names) - most + 1} others"


_WHEN = {
    "": "", "idle": " when idle", "start": " at the start", "all": " with everything at once",
}  # fmt: skip


def when(state: str, label: str) -> str:
    """A state, by id and label, as it ends a clause: ` at the start`, ` during “filming”`."""
    return _WHEN.get(state, f" during “{label.removesuffix(' (mean)')}”")
