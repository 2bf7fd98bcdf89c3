"""Class figures of links, protocols and processors: what people get, from memory unless named."""

from __future__ import annotations

from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.reading import Reading, sampled
from cobblewort.core.parts.model import MediumKind
from cobblewort.core.plans.plan import Protocol
from cobblewort.core.standards import pcie


def _usual(low: float, nominal: float, high: float) -> Reading:
    return Reading(nominal=nominal, low=low, high=high, basis="typical")


LINK_SHARE = {
    "usb2": _usual(25 / 60, 35 / 60, 41 / 60),
    "usb2_shared": _usual(45 / 60, 48 / 60, 51 / 60),
    "usb3": _usual(0.66, 0.78, 0.86),
    "pcie": _usual(0.76, pcie.PAYLOAD_SHARE, 0.88),
    "sata": _usual(0.88, 0.93, 0.95),
}
"""What is left for data of the rate that a link has after its line code. Of a lane the nominal is
what packets of 128 bytes leave; the others lie below the ceilings that their standards set. A
USB 2 bus that several devices take turns on carries more than one of them gets."""
BOTH_WAYS_SHARE = 44 / 48
"""What is left of such a bus that is read and written at once."""


WIRE_SHARE: dict[Protocol, Reading] = {
    "older": _usual(0.80, 0.88, 0.95),
    "newer": _usual(0.88, 0.95, 0.97),
    "transfer": _usual(0.93, 0.95, 0.98),
}
"""What shared folders and plain transfers use of a gigabit wire for big files: 111 MB/s is what
people see."""
SLOW_WIRE_SHARE = _usual(0.93, 0.96, 0.98)
"""The same of a wire of 100 Mbit/s, whatever the protocol, as its cost is one for each byte."""
SLOW_WIRE_MBIT_S = 100.0
STREAM_SHARE = _usual(0.90, 0.95, 0.98)
"""What a stream uses of a wire."""


def wire_share(mbit_s: float | None, protocol: Protocol, *, streams: bool) -> tuple[str, Reading]:
    """What is used of a wire, and the name under which it is drawn."""
    if streams:
        return "stream", STREAM_SHARE
    if mbit_s is not None and mbit_s <= SLOW_WIRE_MBIT_S:
        return "slow", SLOW_WIRE_SHARE
    return protocol, WIRE_SHARE[protocol]


FILE_MS: dict[Protocol, Reading] = {
    "older": _usual(20, 29, 45),
    "newer": _usual(12, 19, 30),
    "transfer": _usual(1, 2, 4),
}
"""What each file costs over a wire besides its bytes. [ms]"""
FILE_MS_BY_RADIO = _usual(5, 15, 40)
"""What radio adds to each file. [ms]"""
FILE_MS_LOCAL = _usual(0.2, 0.5, 1)
"""What each file costs where no network is in between. [ms]"""
PIECES_MB = 0.064
"""Pieces up to this are read and written one by one, by the random rate of their medium."""
RANDOM_PER_S: dict[MediumKind, Reading] = {
    "disk": _usual(60, 90, 150),
    "stick": _usual(20, 100, 500),
    "card": _usual(200, 600, 1500),
    "solid_state": _usual(4000, 10_000, 40_000),
}
"""Pieces of 4 kB that a medium reads or writes in a second: databases, and a start from it."""
CAPTURE_MS, ENCODE_MS, SHOW_MS = _usual(17, 33, 50), _usual(10, 30, 80), _usual(20, 50, 100)
"""What a picture that is sent takes to be taken in, encoded, and shown at the other end. [ms]"""
WIRE_MS, RADIO_MS = _usual(1, 3, 10), _usual(5, 20, 60)
"""What it takes on its way. [ms]"""
PARITY_OF_DOUBLE = 0.7
"""What double parity takes in of what single parity does."""
RADIO_MB_S = _usual(3, 11, 25)
"""What people get by a radio of which nobody says how fast it is. [MB/s]"""
REBUILD_SHARE = _usual(0.4, 0.6, 0.8)
"""What a rebuild gets of its disks or its way, beside daily use."""


def drawn(name: str, reading: Reading, samples: int) -> Quantity:
    """A class figure as a number, or as many of them as there are samples."""
    return reading.nominal if samples == 1 else _sampled(name, reading, samples)


def _sampled(name: str, reading: Reading, samples: int) -> Quantity:
    return sampled(reading, f"usual/{name}", samples)
