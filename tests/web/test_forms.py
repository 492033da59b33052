"""Fields read numbers and words as people write them, and a form changes only what its page sent."""

from decimal import Decimal
from fractions import Fraction

import pytest
from django import forms
from django.core.exceptions import ValidationError
from django.http import QueryDict
from hypothesis import given
from hypothesis import strategies as st

from wembit.web.errors import Refusal
from wembit.web.fields import ChosenField, IdField, NumberField, PriceField, ShareField, TextField, WholeField
from wembit.web.forms import PageForm

FRAMEWORK = ("Ensure", "Select a", "Enter a", "This field", "Null")  # how its sentences begin


def said(field, text):
    with pytest.raises(ValidationError) as fault:
        field.clean(text)
    return fault.value.messages[0]


class Asked:
    """As much of a request as a form reads."""

    def __init__(self, text):
        self.POST, self.FILES = QueryDict(text), {}


class TwoFields(PageForm):
    words = TextField(10)
    count = WholeField(1, 9, "Write 1 to 9.", required=False)


@given(st.text())
def test_words_of_any_kind_come_without_nul_or_are_too_long(text):
    try:
        words = TextField(20).clean(text)
    except ValidationError as fault:
        assert fault.messages == ["That is longer than 20 characters. Shorten it."]
        assert len(text.replace("\0", "").strip()) > 20
    else:
        assert words == text.replace("\0", "").strip()


@given(st.floats(-50, 50).map(lambda number: round(number, 3)))
def test_a_number_reads_as_it_is_written_with_comma_point_or_minus_sign(number):
    text = f"{number:.3f}"
    for written in (text, text.replace(".", ","), text.replace("-", "−"), f" {text} "):
        assert NumberField(-50, 50).clean(written) == pytest.approx(number)


@pytest.mark.parametrize(
    ("field", "text", "words"),
    [
        (NumberField(1, 9), "10", "Write a number between 1 and 9."),
        (NumberField(1, 9), "many", "Write a number between 1 and 9."),
        (NumberField(1, 9), "", "Write a number between 1 and 9."),
        (NumberField(1, 9, whole=True), "2.5", "Write a whole number."),
        (NumberField(1, 9, words="One to nine."), "nan", "One to nine."),
        (WholeField(1, 9, "One to nine."), "9.5", "One to nine."),
        (WholeField(1, 9, "One to nine."), "0", "One to nine."),
        (WholeField(1, 9, "One to nine."), "", "One to nine."),
        (PriceField(), "", "Write the price as a number, like 4.90."),
        (PriceField(), "4 shells", "Write the price as a number, like 4.90."),
        (PriceField(), "1000000", "That is more than a million. Check the number."),
        (IdField("Choose a bag."), "a bag", "Choose a bag."),
        (IdField("Choose a bag."), "", "Choose a bag."),
        (ChosenField(["tops", "batt"], "Choose a form."), "felt", "Choose a form."),
        (ChosenField(["tops"], "Choose a form.", required=True), "", "Choose a form."),
        (TextField(9, words="Give it a name.", required=True), " ", "Give it a name."),
    ],
)
def test_what_cannot_be_read_says_what_to_write(field, text, words):
    assert said(field, text) == words


def test_an_empty_field_that_may_be_empty_is_nothing():
    assert NumberField(1, 9, required=False).clean(" ") is None
    assert ShareField(required=False).clean("") is None
    assert ChosenField(["tops"], "Choose.").clean("") == ""
    assert PriceField(required=False).clean("") == 0


def test_shares_and_prices():
    assert ShareField().clean("two thirds") == Fraction(2, 3)
    assert PriceField().clean("4,905") == Decimal("4.90"), "halves to the even neighbour"
    assert "share" in said(ShareField(), "much")


def test_only_what_the_page_sent_is_sent():
    form = TwoFields(Asked("words=kelp"))
    assert form.is_valid() and form.sent == {"words": "kelp"} and not form.has("count")
    emptied = TwoFields(Asked("words=&count="))
    assert emptied.is_valid() and emptied.sent == {"words": "", "count": None}


def test_the_action_runs_only_on_a_sound_form_and_its_refusal_stands_beside_its_field():
    ran = []
    assert TwoFields(Asked("count=20")).tried(ran.append) == (None, {"count": "Write 1 to 9."})
    assert ran == []
    assert TwoFields(Asked("count=3")).tried(lambda told: told["count"]) == (3, {})

    def refuse(told):
        raise Refusal("The drawer is locked.", "words")

    assert TwoFields(Asked("words=kelp")).tried(refuse) == (None, {"words": "The drawer is locked."})


def declared_forms(kind=PageForm):
    for form in kind.__subclasses__():
        yield form
        yield from declared_forms(form)


def test_no_field_of_a_page_speaks_in_the_framework_s_voice():
    import wembit.web.urls  # noqa: F401  every screen, and so every form, is loaded

    fields = [
        (form.__name__, name, field)
        for form in declared_forms()
        for name, field in form.base_fields.items()
        if form.__module__.startswith("wembit")
    ]
    assert len(fields) > 60
    for form, name, field in fields:
        for odd in ("", "\0", "x" * 5000, "-1", "@"):
            try:
                field.clean([odd] if isinstance(field, forms.MultipleChoiceField) else odd)
            except ValidationError as fault:
                assert not [words for words in fault.messages if words.startswith(FRAMEWORK)], (form, name)
