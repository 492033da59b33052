"""What a difference on the scale can mean."""

import pytest

from wembit.core.stock.recounting import explained


@pytest.mark.parametrize(
    ("book", "found", "word"),
    [
        (100, 103.9, "air"),
        (100, 96.1, "air"),
        (3, 2.85, "air"),
        (100, 90, "less"),
        (100, 112, "more"),
        (0, 5, "more"),
    ],
)
def test_a_few_in_a_hundred_are_the_air(book, found, word):
    # regain of wool 14–18 % from a dry to a damp room: Morton & Hearle, Physical Properties of Textile Fibres
    assert word in explained(book, found)


def test_eyes_take_up_no_water_and_nothing_needs_no_words():
    assert "less" in explained(100, 98, wool=False)
    assert explained(7, 7) == ""
