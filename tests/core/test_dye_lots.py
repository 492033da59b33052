"""Which figure gets which dye lot."""

from hypothesis import given
from hypothesis import strategies as st

from wembit.core.stock.dye_lots import CRUMB_G, Given, Lot, which_gets_which

LOTS = st.lists(st.builds(Lot, st.sampled_from("ABCDE"), st.floats(0, 60)), max_size=5, unique_by=lambda lot: lot.name)


def test_five_of_seven_grams_from_twenty_two_and_fifteen():
    """22 g are three of 7, 15 g are two: nothing has to be mixed."""
    found, mixed = which_gets_which([1, 2, 3, 4, 5], 7, [Lot("B7", 15), Lot("A12", 22)])
    assert found == [Given("A12", (1, 2, 3)), Given("B7", (4, 5))]
    assert mixed == ()


def test_what_no_lot_holds_alone_is_carded_together():
    assert which_gets_which([4, 5], 7, [Lot("A", 8), Lot("B", 6)]) == ([Given("A", (4,))], (5,))
    assert which_gets_which([1, 2], 7, [Lot("A", 4), Lot("B", 4)]) == ([], (1,)), "for the second there is none at all"
    assert which_gets_which([], 7, [Lot("A", 4)]) == ([], ())
    assert which_gets_which([1], 0, [Lot("A", 4)]) == ([], ())
    assert which_gets_which([1, 2], 3.333, [Lot("A", 6.664)]) == ([Given("A", (1, 2))], ()), (
        "a crumb short is no shortage"
    )


@given(st.integers(0, 20), st.floats(0.1, 30), LOTS)
def test_every_figure_once_and_no_lot_gives_more_than_it_has(count, each, lots):
    found, mixed = which_gets_which(range(1, count + 1), each, lots)
    told = [number for share in found for number in share.numbers] + list(mixed)
    assert sorted(told) == list(range(1, len(told) + 1)), "each once, the first ones first"
    enough = sum(lot.grams for lot in lots) / each
    assert min(count, int(enough)) <= len(told) <= min(count, enough + 1)
    grams = {lot.name: lot.grams for lot in lots}
    assert all(len(share.numbers) * each <= grams[share.lot] + CRUMB_G + 1e-9 for share in found)
    left = {name: amount - each * sum(len(s.numbers) for s in found if s.lot == name) for name, amount in grams.items()}
    if mixed:
        assert all(amount < each + 1e-9 for amount in left.values()), (
            "mixed only where no lot holds a whole figure more"
        )
    assert which_gets_which(range(1, count + 1), each, lots[::-1]) == (found, mixed), "whatever the order of the bags"
