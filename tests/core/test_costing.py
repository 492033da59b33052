"""Money: by hand on paper, and by its own laws."""

from decimal import Decimal as D

from hypothesis import given
from hypothesis import strategies as st

from wembit.core.stock.costing import Costed, asked, blended, cents, of_time, total

PRICES = st.decimals(0, 100, places=5)
AMOUNTS = st.decimals(0, 1000, places=3)


def test_an_otter_reckoned_on_paper():
    rows = [
        Costed("peat", D("4.75"), D("0.124")),
        Costed("core", D("21"), D("0.0236")),
        Costed("eyes", D(2), D("0.15")),
    ]
    assert total(rows) == D("1.38"), "0.589 + 0.4956 + 0.30"
    assert of_time(195, D("14")) == D("45.50")
    assert asked(D("46.88"), D("20")) == D("56.26"), "56.256"
    assert cents(D("0.005")) == D("0.01")


@given(st.lists(st.tuples(AMOUNTS, PRICES), max_size=8))
def test_a_sum_is_rounded_once(pairs):
    rows = [Costed("wool", amount, each) for amount, each in pairs]
    exact = sum((amount * each for amount, each in pairs), D(0))
    assert abs(total(rows) - exact) <= D("0.005")
    assert total([*rows, Costed("moss", D(5), None)]) == total(rows)


@given(st.lists(st.tuples(PRICES, st.integers(1, 9)), min_size=1, max_size=5))
def test_a_blend_costs_between_its_parts_and_as_many_times_as_much_when_they_do(shares):
    each = blended(shares)
    assert min(price for price, _ in shares) <= each + D("1e-9") and each <= max(price for price, _ in shares) + D(
        "1e-9"
    )
    assert abs(blended([(2 * price, part) for price, part in shares]) - 2 * each) < D("1e-9")
    assert blended([*shares, (None, 1)]) is None


def test_a_blend_of_nothing_has_no_price():
    assert blended([]) is None
