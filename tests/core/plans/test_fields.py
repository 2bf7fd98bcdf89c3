"""Every field that a person fills in is described once, and the models say what is taken."""

import pytest

from cobblewort.core.plans.fields import FORMS, NOT_FILLED_IN, fields_of


@pytest.mark.parametrize("form", list(FORMS))
def test_every_field_has_its_row_or_is_named_as_none(form: str) -> None:
    """A field that is added to a model fails here until it has a row."""
    model, rows = FORMS[form]
    filled_in = set(model.model_fields) - NOT_FILLED_IN.get(form, frozenset())
    assert set(rows) == filled_in
    assert NOT_FILLED_IN.get(form, frozenset()) <= set(model.model_fields)


@pytest.mark.parametrize("form", list(FORMS))
def test_a_choice_names_what_the_model_takes(form: str) -> None:
    """All of it and nothing else."""
    model, rows = FORMS[form]
    properties = model.model_json_schema()["properties"]
    for name, row in rows.items():
        taken = [
            value
            for kind in properties[name].get("anyOf", [properties[name]])
            for value in kind.get("enum", ())
        ]
        if row.choices:
            assert {str(value) for value in taken} == set(row.choices), name
        elif taken and name != "series":
            raise AssertionError(f"{form}.{name} has choices without words")


def test_bounds_are_those_of_the_models() -> None:
    """So that they stand in one place."""
    place, plan, transfer = fields_of("place"), fields_of("plan"), fields_of("transfer")
    assert (place["ambient_max_c"].least, place["ambient_max_c"].most) == (-60, 90)
    assert (place["noise_max_dba"].above, place["noise_max_dba"].is_optional) == (0, True)
    assert (place["wet"].control, place["dust"].control) == ("check", "choice")
    assert (plan["copies"].whole, plan["copies"].most) == (True, 100)
    assert (plan["budget"].control, plan["purpose"].control) == ("money", "lines")
    assert transfer["text"].longest == 120
    assert not transfer["source"].is_optional
