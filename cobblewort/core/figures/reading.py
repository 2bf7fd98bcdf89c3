"""Figures that know how sure they are, and the samples drawn from them."""

from hashlib import blake2b
from typing import Annotated, Any, Literal, Self

import numpy as np
from pydantic import AfterValidator, BeforeValidator, TypeAdapter, model_validator

from cobblewort.core.figures.arrays import FloatArray
from cobblewort.core.figures.document_model import stated

Basis = Literal["standard", "measured", "datasheet", "estimate", "typical"]

BAND_SHARE: dict[str, float] = {
    "standard": 0.0,
    "measured": 0.03,
    "datasheet": 0.10,
    "estimate": 0.40,
}
"""Half-width of the band around the nominal value when a figure states none."""


@stated
class Reading:
    """One physical figure: nominal value, the band it lies in, and what it rests on.

    A document may give a bare number (basis `datasheet`, 10 % band), a list `[low, nominal, high]`
    or `[nominal]` (basis `typical`: how class defaults are written), or the fields themselves.
    """

    nominal: float
    low: float
    high: float
    basis: Basis

    @model_validator(mode="before")
    @classmethod
    def _from_short_forms(cls, value: Any) -> Any:
        if isinstance(value, bool):
            raise ValueError("a value must be a number (got true or false)")
        if isinstance(value, int | float):
            return _with_band(_number(value), "datasheet")
        if isinstance(value, list | tuple):
            return _from_triple(list(value))
        if isinstance(value, dict) and "nominal" in value and not {"low", "high"} & set(value):
            basis = value.get("basis", "datasheet")
            if _has_band(basis) and isinstance(value["nominal"], int | float):
                return {**value, **_with_band(_number(value["nominal"]), basis)}
        return value

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if not self.low <= self.nominal <= self.high:
            raise ValueError(
                f"low, nominal and high must rise in that order (got {self.low:g}, "
                f"{self.nominal:g}, {self.high:g})"
            )
        return self


READING = TypeAdapter(Reading)
"""Reads a figure as a document writes it."""


def _number(value: float) -> float:
    """A figure as it is computed with: JSON may hold whole numbers beyond all bounds."""
    try:
        return float(value)
    except OverflowError as error:
        raise ValueError("the number is too large") from error


def _has_band(basis: Any) -> bool:
    return isinstance(basis, str) and basis in BAND_SHARE


def _with_band(nominal: float, basis: str) -> dict[str, Any]:
    half = abs(nominal) * BAND_SHARE[basis]
    return {"nominal": nominal, "low": nominal - half, "high": nominal + half, "basis": basis}


def _from_triple(values: list[Any]) -> dict[str, Any]:
    if len(values) == 1:
        values = values * 3
    if len(values) != 3:
        raise ValueError(f"a value given as a list must be [low, nominal, high] (got {values})")
    return {"low": values[0], "nominal": values[1], "high": values[2], "basis": "typical"}


def _exact(value: Any) -> Any:
    if isinstance(value, int | float) and not isinstance(value, bool):
        number = _number(value)
        return {"nominal": number, "low": number, "high": number, "basis": "datasheet"}
    return value


Rating = Annotated[Reading, BeforeValidator(_exact)]
"""A promise of the maker, such as a rated current: a bare number has no band around it."""


_LARGEST = 1e6
"""No figure of a small appliance is larger; a slipped unit usually is."""


def _above_zero(reading: Reading) -> Reading:
    if reading.low <= 0 or reading.high > _LARGEST:
        raise ValueError(
            f"must be above 0 and at most {_LARGEST:g}, its range included "
            f"(got {reading.low:g} to {reading.high:g})"
        )
    return reading


def _not_negative(reading: Reading) -> Reading:
    if reading.low < 0 or reading.high > _LARGEST:
        raise ValueError(
            f"must not be negative and at most {_LARGEST:g}, its range included "
            f"(got {reading.low:g} to {reading.high:g})"
        )
    return reading


def _without_band(value: Any) -> tuple[float, str] | None:
    """Nominal and basis of a share, 0 to 1, that states no band of its own."""
    stated = value if isinstance(value, dict) else {"nominal": value}
    nominal, basis = stated.get("nominal"), stated.get("basis", "datasheet")
    if isinstance(nominal, bool) or not isinstance(nominal, int | float) or nominal > 1:
        return None
    if {"low", "high"} & set(stated) or not _has_band(basis):
        return None
    return _number(nominal), basis


def _share_band(value: Any) -> Any:
    """Of a share without a stated band the band ends at 1, as no more is lost than there is."""
    plain = _without_band(value)
    if plain is None:
        return value
    banded = _with_band(*plain)
    return {**banded, "high": min(1.0, banded["high"])}


_LOSS_BAND_SHARE = 0.25
"""Half-width of the band around what a converter loses, where its efficiency states none."""


def _band_on_loss(value: Any) -> Any:
    """Of an efficiency without a stated band it is the loss that is uncertain."""
    plain = _without_band(value)
    if plain is None:
        return value
    nominal, basis = plain
    half = 0.0 if basis == "standard" else (1 - nominal) * _LOSS_BAND_SHARE
    return {"nominal": nominal, "low": nominal - half, "high": nominal + half, "basis": basis}


def _share(reading: Reading) -> Reading:
    if reading.low <= 0 or reading.high > 1:
        raise ValueError(
            f"must be above 0 and at most 1, its range included (got {reading.low:g} to "
            f"{reading.high:g})"
        )
    return reading


_LOUDEST_DBA = 194.0
"""The loudest there can be in air: its pressure falls to nothing between the waves."""


def _level(reading: Reading) -> Reading:
    if reading.low < 0 or reading.high > _LOUDEST_DBA:
        raise ValueError(
            f"must be from 0 to {_LOUDEST_DBA:g} dB(A), its range included "
            f"(got {reading.low:g} to {reading.high:g})"
        )
    return reading


def _below_all(reading: Reading) -> Reading:
    if reading.low <= 0 or reading.high >= 100:
        raise ValueError(
            f"must be above 0 and below 100 %, its range included (got {reading.low:g} to "
            f"{reading.high:g})"
        )
    return reading


Percentage = Annotated[Reading, AfterValidator(_below_all)]
"""A share of some, never of all. [%]"""
Level = Annotated[Reading, AfterValidator(_level)]
"""How loud something is. [dB(A)]"""
Positive = Annotated[Reading, AfterValidator(_above_zero)]
NotNegative = Annotated[Reading, AfterValidator(_not_negative)]
PositiveRating = Annotated[Rating, AfterValidator(_above_zero)]
NotNegativeRating = Annotated[Rating, AfterValidator(_not_negative)]
Share = Annotated[Reading, AfterValidator(_share), BeforeValidator(_share_band)]
Efficiency = Annotated[Reading, AfterValidator(_share), BeforeValidator(_band_on_loss)]
"""What a converter or supply gives of what it takes."""
ShareRating = Annotated[Rating, AfterValidator(_share)]


def unit_draws(key: str, samples: int) -> FloatArray:
    """Stratified draws from 0 to 1 for samples 1 and up, the same for the same key.

    One draw falls in each of `samples - 1` equal strata; their order depends on `key` alone, so
    that an edit elsewhere in a plan moves no draw of this figure.
    """
    strata = samples - 1
    seed = int.from_bytes(blake2b(key.encode(), digest_size=8).digest(), "big")
    rng = np.random.default_rng(seed)
    draws: FloatArray = (rng.permutation(strata) + rng.random(strata)) / max(strata, 1)
    draws.setflags(write=False)
    return draws


_WIDE = 2.0
"""A figure known no better than within such a factor is as likely half as large as twice."""


def sampled(reading: Reading, key: str, samples: int) -> FloatArray:
    """Values of a figure: sample 0 nominal, the rest triangular between low and high.

    Parameters
    ----------
    reading : Reading
        The figure.
    key : str
        What the figure is called: part id and field. Figures with one key share their draws.
    samples : int
        Number of values, at least 1.

    Returns
    -------
    ndarray, shape (samples,)
        In the unit of the figure.

    Notes
    -----
    Inverse of the triangular distribution with its mode at the nominal value; of the logarithm,
    where the high end is more than twice a low end above 0.
    """
    values = np.full(samples, reading.nominal)
    if samples == 1 or reading.high <= reading.low:
        return values
    draws = unit_draws(key, samples)
    ends = reading.low, reading.nominal, reading.high
    if 0 < reading.low * _WIDE < reading.high:
        low, mode, high = np.log(ends)
        values[1:] = np.exp(_triangular(draws, low, mode, high))
    else:
        values[1:] = _triangular(draws, *ends)
    return values


def _triangular(draws: FloatArray, low: float, mode: float, high: float) -> FloatArray:
    """The values at draws from 0 to 1."""
    width, below, above = high - low, mode - low, high - mode
    values: FloatArray = np.where(
        draws < below / width,
        low + np.sqrt(draws * width * below),
        high - np.sqrt((1 - draws) * width * above),
    )
    return values
