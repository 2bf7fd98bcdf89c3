import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from cobblewort.core.figures.reading import (
    READING,
    Level,
    Percentage,
    Rating,
    Reading,
    sampled,
    unit_draws,
)

RATING: TypeAdapter[Reading] = TypeAdapter(Rating)
finite = st.floats(min_value=-1e6, max_value=1e6, allow_nan=False)


@pytest.mark.parametrize(
    ("document", "low", "nominal", "high", "basis"),
    [
        (10, 9, 10, 11, "datasheet"),
        (-10, -11, -10, -9, "datasheet"),
        ([1, 2, 4], 1, 2, 4, "typical"),
        ([3], 3, 3, 3, "typical"),
        ({"nominal": 100, "basis": "measured"}, 97, 100, 103, "measured"),
        ({"nominal": 100, "basis": "estimate"}, 60, 100, 140, "estimate"),
        ({"nominal": 5, "basis": "standard"}, 5, 5, 5, "standard"),
        ({"nominal": 5, "low": 4, "high": 7, "basis": "datasheet"}, 4, 5, 7, "datasheet"),
    ],
)
def test_short_forms_get_the_band_of_their_basis(
    document: object, low: float, nominal: float, high: float, basis: str
) -> None:
    """A bare number is a data sheet's, a list is a class figure, a basis brings its band."""
    reading = READING.validate_python(document)
    assert (reading.low, reading.nominal, reading.high) == pytest.approx((low, nominal, high))
    assert reading.basis == basis


def test_a_rating_given_as_a_number_has_no_band() -> None:
    """A promise is a promise; one from a class keeps its triple."""
    assert RATING.validate_python(3.0).low == RATING.validate_python(3.0).high == 3.0
    assert RATING.validate_python([1, 2, 3]).high == 3


@pytest.mark.parametrize(
    "document",
    [True, "3 A", float("nan"), float("inf"), [3, 2, 1], [1, 2], [], {"low": 1, "high": 2}, None],
)
def test_what_is_no_figure_is_refused(document: object) -> None:
    """Booleans, words, NaN and triples out of order are errors of the document."""
    with pytest.raises(ValidationError):
        READING.validate_python(document)


def test_sample_zero_is_nominal_and_the_rest_stay_in_the_band() -> None:
    """Sample 0 is the nominal value itself, to the last bit."""
    reading = READING.validate_python([1.0, 2.0, 5.0])
    values = sampled(reading, "part/field", 256)
    assert values[0] == 2.0
    assert values.min() >= 1.0
    assert values.max() <= 5.0


def test_draws_follow_the_triangle() -> None:
    """Mean of a triangular distribution: (low + nominal + high) / 3."""
    values = sampled(READING.validate_python([4.0, 5.0, 7.5]), "key", 4097)[1:]
    assert values.mean() == pytest.approx(5.5, abs=0.01)
    assert np.mean(values < 5.0) == pytest.approx(1 / 3.5, abs=0.002)


def test_a_wide_band_is_drawn_in_its_logarithm() -> None:
    """More than a factor of two: half as much is as likely as twice as much."""
    values = sampled(READING.validate_python([1.0, 2.0, 6.0]), "key", 4097)[1:]
    assert np.log(values).mean() == pytest.approx(np.log([1.0, 2.0, 6.0]).mean(), abs=0.003)
    assert np.mean(values < 2.0) == pytest.approx(np.log(2) / np.log(6), abs=0.002)
    assert (values.min() >= 1.0) & (values.max() <= 6.0)
    from_nothing = sampled(READING.validate_python([0.0, 2.0, 6.0]), "key", 4097)[1:]
    assert from_nothing.mean() == pytest.approx(8 / 3, abs=0.01), "which has no logarithm"


def test_a_draw_depends_on_its_key_alone() -> None:
    """The same key draws the same, another key in another order; each stratum holds one draw."""
    first, other = unit_draws("a", 65), unit_draws("b", 65)
    assert np.array_equal(first, unit_draws("a", 65))
    assert not np.array_equal(first, other)
    assert sorted((first * 64).astype(int)) == list(range(64))


@given(st.lists(finite, min_size=3, max_size=3).map(sorted))
def test_every_band_is_drawn_within_itself(values: list[float]) -> None:
    """Whatever the triple, no draw leaves it."""
    drawn = sampled(READING.validate_python(values), "any", 17)
    slack = 1e-9 * max(1.0, abs(values[0]), abs(values[2]))
    assert drawn.min() >= values[0] - slack
    assert drawn.max() <= values[2] + slack


@pytest.mark.parametrize("level", [-1, 195, 31_000])
def test_a_level_that_no_air_can_carry_is_refused(level: float) -> None:
    """Above 194 dB the pressure between the waves would be less than none."""
    with pytest.raises(ValidationError, match="from 0 to 194"):
        TypeAdapter(Level).validate_python(
            {"nominal": level, "low": level, "high": level, "basis": "estimate"}
        )


@pytest.mark.parametrize(("value", "good"), [(99.9, False), ([1, 4, 99], True), (100, False)])
def test_a_share_of_some_is_never_all(value: float | list[float], good: bool) -> None:
    """100 % of the disks failing in a year has no rate; a bare 99.9 has a band beyond 100."""
    reader: TypeAdapter[Reading] = TypeAdapter(Percentage)
    if good:
        reader.validate_python(value)
    else:
        with pytest.raises(ValidationError, match="below 100 %"):
            reader.validate_python(value)
