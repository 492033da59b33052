"""Whether what lies aside will reach."""

import pytest

from wembit.core.grams.estimate import Range
from wembit.core.work.aside import reaches


@pytest.mark.parametrize(
    ("grams", "words"),
    [
        (0.9, "will not"),
        (1.0, "may not"),
        (1.9, "may not"),
        (2.0, "more often"),
        (3.9, "more often"),
        (4.0, "nine times"),
    ],
)
def test_by_where_it_lies_in_the_range(grams, words):
    assert words in reaches(Range(1.0, 2.0, 4.0), grams)
