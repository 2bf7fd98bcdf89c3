"""Purposes in their forms and with other amounts: words and transfers follow what is asked."""

from string import Formatter

import pytest

from cobblewort.core.errors import InputError
from cobblewort.core.plans.plan import Place, Plan
from cobblewort.core.plans.purpose import Purpose, asking, asking_anew, in_form, plan_for
from cobblewort.formats.shipped import shipped_purposes

PURPOSES = list(shipped_purposes().values())
RECORDER = shipped_purposes()["sound-recorder"]


def words_of(purpose: Purpose) -> dict[str, str]:
    """What each requirement and transfer is called."""
    return {one.id: one.text for one in (*purpose.requirements, *purpose.transfers)}


@pytest.mark.parametrize("purpose", PURPOSES, ids=lambda purpose: purpose.id)
def test_amounts_and_forms_name_what_is_there(purpose: Purpose) -> None:
    """Each amount its requirement and transfers, each template its amount, each form its own."""
    besides = {one.id for form in purpose.forms for one in form.besides}
    asked = {one.id for one in purpose.requirements} | besides
    transfers = {one.id for one in purpose.transfers}
    for name, amount in purpose.amounts.items():
        assert name in asked
        assert amount.transfers.keys() <= transfers
        assert [field for _, field, _, _ in Formatter().parse(amount.text) if field] == ["amount"]
    for form in purpose.forms:
        assert form.amounts.keys() <= asked
        assert in_form(purpose, form.id).summary == form.summary
    if purpose.forms:
        assert in_form(purpose, purpose.forms[0].id).requirements == purpose.requirements
        assert purpose.forms[0].summary == purpose.summary
    told = {one.id for one in purpose.requirements if one.at_least or one.at_most}
    unasked = {one.id for one in purpose.requirements if one.condition == "enough_processor"}
    assert told - unasked <= purpose.amounts.keys()


def test_stereo_is_a_small_recorder() -> None:
    """Two sixteenths of the sound: 0.144 MB/s for each channel, 21 GB for sixteen."""
    stereo = in_form(RECORDER, "stereo")
    assert words_of(stereo) == {
        "inputs": "2 microphones at once",
        "room": "capacity of 83 GB",
        "wifi": "started from a tablet",
        "microphones": "2 microphones",
        "fetch": "a rehearsal copied",
    }
    sound, fetch = stereo.transfers
    assert (sound.at_once, sound.stream_mb_s, fetch.amount_gb) == (2, 0.144, 2.6)
    assert stereo.requirements[0].at_least == 2


def test_the_usual_amount_changes_nothing() -> None:
    """Nor does an amount for what has none, or for what is not asked."""
    usual = asking(RECORDER, {"inputs": 16, "wifi": 3, "moon": 1})
    assert (usual.requirements, usual.transfers) == (RECORDER.requirements, RECORDER.transfers)


def test_a_limit_is_an_amount_too() -> None:
    """At most so long."""
    console = shipped_purposes()["controller-console"]
    small = {one.id: one for one in asking(console, {"small": 120}).requirements}["small"]
    assert (small.at_most, small.at_least, small.text) == (120, None, "at most 120 mm long")


def test_what_is_removed_takes_its_transfers_along() -> None:
    """A recorder without microphones records nothing; what other requirements move stays."""
    mute = asking(RECORDER, {}, removed=["inputs"])
    assert words_of(mute).keys() == {"room", "wifi", "fetch"}
    twice = RECORDER.model_copy(
        update={
            "requirements": (
                *RECORDER.requirements,
                RECORDER.requirements[0].model_copy(update={"id": "more"}),
            )
        }
    )
    assert "microphones" in words_of(asking(twice, {}, removed=["inputs"]))


def test_an_unknown_form_is_told() -> None:
    """With those that there are."""
    with pytest.raises(InputError, match="has no form 'mono' \\(it has: many, stereo\\)"):
        in_form(RECORDER, "mono")


PLAN = plan_for(RECORDER, "Loft", Place())


def words_in(plan: Plan) -> dict[str, str]:
    """What each requirement and transfer of a plan is called."""
    return {one.id: one.text for one in (*plan.requirements, *plan.transfers)}


def test_a_plan_asks_for_less() -> None:
    """Amounts of a plan change as those of its purpose do, there and back."""
    fewer = asking_anew(PLAN, RECORDER, "inputs", 4)
    assert fewer.purpose == "Records 4 microphones at once."
    assert words_in(fewer)["inputs"] == "4 microphones at once"
    assert words_in(fewer)["microphones"] == "4 microphones"
    sound, fetch = fewer.transfers
    assert (sound.at_once, fetch.amount_gb) == (4, 5.2)
    more = asking_anew(fewer, RECORDER, "inputs", 16)
    assert more.purpose == "Records 16 microphones at once."
    assert (more.transfers[0].at_once, more.transfers[1].amount_gb) == (16, 21)


def test_words_of_ones_own_stay() -> None:
    """Only a figure in them follows, where it is the amount and stands there once."""
    own = PLAN.model_copy(
        update={
            "purpose": "Records the organ.",
            "requirements": tuple(
                one.model_copy(update={"text": text})
                for one, text in zip(
                    PLAN.requirements,
                    ("16 ears, 16.5 m apart", "about 663 GB", "663 tablets, or 663"),
                    strict=True,
                )
            ),
        }
    )
    fewer = asking_anew(asking_anew(own, RECORDER, "inputs", 8), None, "room", 300)
    assert fewer.purpose == "Records the organ."
    assert [one.text for one in fewer.requirements] == [
        "8 ears, 16.5 m apart",
        "about 300 GB",
        "663 tablets, or 663",
    ]
    assert fewer.transfers[0].at_once == 8
    said = asking_anew(own, RECORDER, "inputs", 8, "two quartets")
    assert said.requirements[0].text == "two quartets"


def test_a_plan_asks_no_longer() -> None:
    """What is removed takes its transfers along, and a summary that speaks of it."""
    mute = asking_anew(asking_anew(PLAN, RECORDER, "inputs", 4), RECORDER, "inputs", None)
    assert words_in(mute).keys() == {"room", "wifi", "fetch"}
    assert mute.purpose == "Audio recorder"
    sign = shipped_purposes()["sign"]
    screen = plan_for(in_form(sign, "with-screen"), "Menu", Place())
    assert asking_anew(screen, sign, "face", None).purpose == sign.summary
    assert asking_anew(screen, sign, "face", 7).purpose == screen.purpose


@pytest.mark.parametrize(("requirement", "where"), [("moon", "requirement"), ("wifi", "amount")])
def test_what_has_no_amount_is_told(requirement: str, where: str) -> None:
    """A requirement that another tab removed, and one that is a yes or no."""
    with pytest.raises(InputError) as told:
        asking_anew(PLAN, RECORDER, requirement, 3)
    assert [field for field, _ in told.value.problems] == [where]
