"""Class figures of links, protocols and processors: what people get, from memory unless named."""

from __future__ import annotations

from cobblewort.core.figures.arrays import Quantity
from cobblewort.core.figures.reading import Reading, sampled
from cobblewort.core.plans.plan import Protocol
from cobblewort.core.standards import pcie


def _usual(low: float, nominal: float, high: float) -> Reading:
    return Reading(nominal=nominal, low=low, high=high, basis="typical")


LINK_SHARE = {
    "usb2": _usual(25 / 60, 35 / 60, 41 / 60),
    "usb3": _usual(0.66, 0.78, 0.86),
    "pcie": _usual(0.76, pcie.PAYLOAD_SHARE, 0.88),
    "sata": _usual(0.88, 0.93, 0.95),
}
"""What is left for data of the rate that a link has after its line code. Of a lane the nominal is
what packets of 128 bytes leave; the others lie below the ceilings that their standards set."""
WIRE_SHARE: dict[Protocol, Reading] = {
    "older": _usual(0.72, 0.79, 0.95),
    "newer": _usual(0.80, 0.87, 0.97),
    "transfer": _usual(0.93, 0.95, 0.98),
}
"""What shared folders and plain transfers use of a wire for big files."""
STREAM_SHARE = _usual(0.90, 0.95, 0.98)
"""What a stream uses of a wire."""
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
