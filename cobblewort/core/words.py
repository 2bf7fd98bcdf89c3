"""Figures of sentences, one form for each unit, and what sentences have in common."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from decimal import Decimal
from math import floor, inf, log10

from cobblewort.core.text import Figure, Said, Text, as_text, joined, say, written_figure

_CONNECTOR_WORDS = {
    "usb-a": "USB-A",
    "usb-c": "USB-C",
    "micro-usb": "micro-USB",
    "flat-16": "flat-cable",
    "m2": "M.2",
    "memory-card": "card",
    "fan-4": "4-pin fan",
    "camera-15": "15-way camera",
    "camera-22": "22-way camera",
    "sata": "SATA",
    "header-5v": "GPIO 5 V",
    "header-3v3": "GPIO 3.3 V",
    "video-full": "full-size video",
    "video-mini": "mini video",
    "video-micro": "micro video",
    "aerial": "antenna",
}
ANSWERED_Y = 10.0
"""Nobody answers for a longer life: what would last longer is told as this and more. [a]"""
_LEAST_Y = 0.1


def connector(name: str) -> str:
    """How people call a connector."""
    return _CONNECTOR_WORDS.get(name, name)


def _decimals(value: float, decimals: int, more: int) -> int:
    """At most so many decimals, and three digits of meaning; `more` of both where two would read
    the same.
    """
    before = len(str(int(abs(value))))
    return max(0, min(decimals, 3 - before)) + more


def _figure(value: float, unit: str, decimals: int, more: int) -> Figure:
    return Figure(value, unit, _decimals(value, decimals, more))


def amps(current_a: float, more: int = 0) -> Figure:
    """`1.20 A`."""
    return _figure(current_a, "A", 2, more)


def milliamps(current_ma: float, more: int = 0) -> Figure:
    """`5.0 mA`."""
    return _figure(current_ma, "mA", 1, more)


def volts(voltage_v: float, more: int = 0) -> Figure:
    """`4.83 V`."""
    return _figure(voltage_v, "V", 2, more)


def watts(power_w: float, more: int = 0) -> Figure:
    """`5.3 W`."""
    return _figure(power_w, "W", 1, more)


def watt_hours(energy_wh: float, more: int = 0) -> Figure:
    """`74 Wh`."""
    return Figure(energy_wh, "Wh", more)


def percent(share: float) -> Figure:
    """`75 %`, with the space that ISO 80000-1 wants."""
    return Figure(100 * share, "%")


def kept(share: float) -> Figure:
    """`87 %` of a speed, with as many digits as keep it on its side of 60, 90 and 100 %."""
    for decimals in range(3):
        told = round(100 * share, decimals)
        if all((told < mark) == (100 * share < mark) for mark in (60, 90, 100)):
            break
    return Figure(100 * share, "%", decimals)


def decibels(level_dba: float, more: int = 0) -> Figure:
    """`34 dB(A)`."""
    return Figure(level_dba, "dB(A)", more)


def counted(value: float, unit: str) -> Figure:
    """`8 GB`, `2.5 V`: as many decimals as it was stated with, at most three."""
    text = f"{value:.3f}".rstrip("0")
    return Figure(value, unit, len(text.partition(".")[2]))


def likely(of_all: float) -> Text:
    """`94 of 100 likely cases`, never more than it is: 94.9 lies below a threshold of 95."""
    return say("{count} of 100 likely cases", count=int(100 * of_all + 1e-9))


def rate(mb_s: float, more: int = 0) -> Figure:
    """`111 MB/s`, `3.1 MB/s`."""
    return _whole(mb_s, "MB/s", more)


def minutes(time_min: float, more: int = 0) -> Figure:
    """`31 min`, `12 s` below a minute, `3.5 h` from two hours on, `12 days` from three days on."""
    if time_min >= 3 * 24 * 60:
        return _whole(time_min / 1440, "days", more)
    if time_min >= 120:
        return _whole(time_min / 60, "h", more)
    if time_min < 1:
        return _whole(time_min * 60, "s", more)
    return _whole(time_min, "min", more)


def _whole(value: float, unit: str, more: int) -> Figure:
    """One decimal, and none where it would be a nought."""
    decimals = _decimals(value, 1, more)
    shown = f"{value:.{decimals}f}"
    return Figure(value, unit, 0 if shown.endswith(".0") else decimals)


def years(time_y: float, more: int = 0, most_y: float = inf) -> Text:
    """`4.6 years`, `5 years`, `12 days`, `10 years and more`: from `most_y` on nobody tells how
    long.
    """
    if time_y >= most_y:
        return say("{years} and more", years=counted(most_y, "years"))
    if time_y < _LEAST_Y:
        return as_text(Figure(time_y * 365.25, "days", more))
    told = _whole(time_y, "years", more)
    one = round(time_y, told.decimals) == 1
    return as_text(Figure(time_y, "year", 0) if one else told)


def size(capacity_gb: float) -> Figure:
    """`480 GB`, `1.5 TB`, `340 MB`: as labels count."""
    if capacity_gb >= 1000:
        return _meaning(capacity_gb / 1000, "TB", 4)
    if capacity_gb >= 1 or capacity_gb == 0:
        return _meaning(capacity_gb, "GB", 3)
    return _meaning(capacity_gb * 1000, "MB", 3)


def daily(capacity_gb: float) -> Figure:
    """`1.2 GB per day`: two digits of meaning, for that is how well anybody knows it."""
    if capacity_gb < 0.1:
        return _meaning(capacity_gb * 1000, "MB per day", 2)
    return _meaning(capacity_gb, "GB per day", 2)


def yearly(capacity_tb: float, more: int = 0) -> Figure:
    """`55 TB per year`."""
    return _meaning(capacity_tb, "TB per year", 2 + more)


def _meaning(value: float, unit: str, digits: int) -> Figure:
    """So many digits of meaning, never in powers of ten."""
    if value == 0:
        return Figure(0.0, unit)
    decimals = digits - 1 - floor(log10(abs(value)))
    text = f"{round(value, decimals):.{max(0, decimals)}f}"
    kept = len(text.rstrip("0").partition(".")[2]) if "." in text else 0
    return Figure(round(value, decimals), unit, kept)


def mm(length_mm: float, more: int = 0) -> Figure:
    """`12.5 mm`."""
    return _figure(length_mm, "mm", 1, more)


def stated_mm(length_mm: float) -> Figure:
    """`6.5 mm`, `11 mm`: as it was stated."""
    return counted(length_mm, "mm")


def sides(*figures: Figure) -> Text:
    """`12 × 6.5 mm`: the sides of something, with the unit once."""
    *first, last = figures
    return joined([*(figure.without_unit() for figure in first), last], "\N{NO-BREAK SPACE}× ")


def span(low: Figure, high: Figure) -> Text:
    """`10 to 40 °C`, with the unit once."""
    return say("{low} to {high}", low=low.without_unit(), high=high)


def degrees(temp_c: float, more: int = 0) -> Figure:
    """`79 °C`."""
    return Figure(temp_c, "°C", more)


def kelvins(delta_k: float, more: int = 0) -> Figure:
    """`5 °C`, of a difference: 9 °F of them."""
    return Figure(delta_k, "°C", more, is_difference=True)


def apart(form: Callable[[float, int], Said], value: float, limit: float) -> tuple[Said, Said]:
    """A value and its limit, with up to two more digits where they would read the same, and with as
    many decimals the one as the other.
    """
    for more in range(3):
        told = _level(form(value, more), form(limit, more))
        if str(as_text(told[0])) != str(as_text(told[1])):
            return told
    return _level(form(value, 0), form(limit, 0))


def _level(one: Said, other: Said) -> tuple[Said, Said]:
    if not isinstance(one, Figure) or not isinstance(other, Figure) or one.unit != other.unit:
        return one, other
    decimals = max(one.decimals, other.decimals)
    return (
        Figure(one.value, one.unit, decimals, one.is_difference),
        Figure(other.value, other.unit, decimals, other.is_difference),
    )


def money(amount: Decimal | float, currency: str) -> Figure:
    """`€12.50`, `€12`, `USD 12`: no cents where there are none."""
    value = float(Decimal(str(amount)))
    decimals = 0 if f"{value:.2f}".endswith(".00") else 2
    return Figure(value, currency, decimals, is_money=True)


def article(noun: str) -> str:
    """`a` or `an`, as the noun is spoken: `an M.2 slot`, `a USB-C port`."""
    spoken_as_vowel = noun[:1] in "AEIOaeio" or noun.startswith(("M.2", "LED", "SD", "HD"))
    return "an" if spoken_as_vowel else "a"


def count(number: int, noun: str) -> str:
    """`1 sheet`, `2 sheets`."""
    return f"{number} {noun}{'' if number == 1 else 's'}"


def opening(text: str) -> str:
    """A name as it opens a sentence."""
    return text[:1].upper() + text[1:]


def opened(text: Text) -> Text:
    """A text as it opens a sentence."""
    first = text.parts[0] if text.parts else ""
    if not isinstance(first, str):
        return text
    return joined([opening(first), *text.parts[1:]], "")


_PROPER = ("Ethernet", "Wi-Fi")


def within(text: str) -> str:
    """A label as it stands inside a sentence; abbreviations and proper names stay as they are."""
    keeps = text[1:2].isupper() or text.startswith(_PROPER)
    return text if keeps else text[:1].lower() + text[1:]


def natural(label: str) -> str:
    """A label with its qualifier in front: `USB ports, shared` is `shared USB ports`."""
    noun, _, qualifier = label.partition(", ")
    return f"{qualifier} {within(noun)}" if qualifier else within(noun)


def listed(words: Iterable[str]) -> str:
    """`a, b and c`, of names."""
    *first, last = list(words)
    return f"{', '.join(first)} and {last}" if first else last


def listed_texts(texts: Iterable[Said]) -> Text:
    """`a, b and c`, of what may hold figures."""
    *first, last = list(texts)
    return (
        say("{first} and {last}", first=joined(first, ", "), last=last) if first else as_text(last)
    )


def few(words: Iterable[str], most: int = 3) -> str:
    """`a, b and c`, each once; beyond `most` the rest is counted: `a, b, c and 7 more`."""
    names = list(dict.fromkeys(words))
    if len(names) <= most:
        return listed(names)
    return f"{', '.join(names[:most])} and {len(names) - most} more"


_WHEN = {
    "": "",
    "idle": " when idle",
    "start": " at power-up",
    "all": " in the worst case",
}


def when(state: str, label: str) -> str:
    """A state, by id and label, as it ends a clause: ` at power-up`, ` during “filming”`."""
    return _WHEN.get(state, f" during “{label.removesuffix(' (mean)')}”")


def plain(said: Said) -> str:
    """What stands in a slot as it is told in units of the core."""
    return written_figure(said) if isinstance(said, Figure) else str(said)
