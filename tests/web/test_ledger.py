"""The ledger: append-only, true, reversible, repeatable."""

import datetime as dt
import os
from decimal import Decimal as D

import pytest
from django.db import IntegrityError, transaction
from django.db.models import Sum
from django.http import Http404
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.web import factories as make
from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.stash.actions.discard import discard
from wembit.web.stash.actions.merge import merge
from wembit.web.stash.actions.pull import pull
from wembit.web.stash.actions.put_back import put_back
from wembit.web.stash.actions.receive import Parcel, receive
from wembit.web.stash.actions.recount import recount
from wembit.web.stash.actions.split import split
from wembit.web.stash.actions.undo import undo
from wembit.web.stash.ledger import Press, Short
from wembit.web.stash.models import Entry, Lot, Movement

pytestmark = pytest.mark.django_db


def held(lot) -> D:
    return Lot.objects.get(pk=lot.pk).on_hand


def book_is_true(lot) -> bool:
    total = Movement.objects.filter(lot=lot).aggregate(total=Sum("amount"))["total"]
    return total == held(lot)


def ago(hours):
    return clock.now() - dt.timedelta(hours=hours)


def test_a_pull_leaves_less_in_the_bag(owner):
    lot = make.lot(owner, grams="50")
    pull(owner, lot.pk, D("7.5"), press=make.press())
    assert held(lot) == D("42.5")
    assert book_is_true(lot)


def test_the_same_press_counts_once_and_other_content_is_told(owner):
    lot, same = make.lot(owner), make.press()
    first = pull(owner, lot.pk, D(5), press=same)
    assert pull(owner, lot.pk, D(5), press=same) == first
    assert held(lot) == 45
    with pytest.raises(Refusal, match="another amount"):
        pull(owner, lot.pk, D(6), press=same)


def test_a_short_lot_offers_what_is_left(owner):
    lot = make.lot(owner, grams="3")
    with pytest.raises(Short) as caught:
        pull(owner, lot.pk, D(4), press=make.press())
    assert caught.value.left == 3
    assert "weigh the bag again" in caught.value.message
    assert held(lot) == 3


@pytest.mark.parametrize("amount", [0, -2])
@pytest.mark.parametrize("verb", [pull, put_back, split, discard])
def test_nothing_and_less_is_no_amount(owner, verb, amount):
    lot = make.lot(owner)
    with pytest.raises(Refusal):
        verb(owner, lot.pk, D(amount), press=make.press())
    assert held(lot) == 50


def test_another_studios_lot_is_not_there(owner):
    stranger = make.studio_owner("Dune", "ana")
    lot = make.lot(stranger)
    for verb in (pull, put_back, split, discard, recount):
        with pytest.raises(Http404):
            verb(owner, lot.pk, D(1), press=make.press())
    with pytest.raises(Http404):
        undo(owner, press=make.press(), entry_id=Entry.objects.of(stranger.studio).first().pk)


def test_the_database_refuses_to_change_or_delete_a_line(owner):
    make.lot(owner)
    for change in (
        lambda: Movement.objects.update(amount=1),
        lambda: Movement.objects.all().delete(),
        lambda: Entry.objects.update(verb="x"),
        lambda: Entry.objects.all()._raw_delete("default"),
    ):
        with pytest.raises(IntegrityError, match="append-only"), transaction.atomic():
            change()


def test_the_database_refuses_less_than_nothing(owner):
    lot = make.lot(owner)
    with pytest.raises(IntegrityError, match="never_below_zero"), transaction.atomic():
        Lot.objects.filter(pk=lot.pk).update(on_hand=-1)


def test_undo_reverses_the_whole_entry_and_only_once(owner):
    lot = make.lot(owner)
    entry = split(owner, lot.pk, D(20), press=make.press())
    other = Lot.objects.exclude(pk=lot.pk).get()
    assert (held(lot), held(other)) == (30, 20)
    undo(owner, press=make.press(), entry_id=entry.pk)
    assert (held(lot), held(other)) == (50, 0)
    with pytest.raises(Refusal, match="already"):
        undo(owner, press=make.press(), entry_id=entry.pk)


def test_undo_without_a_name_takes_the_members_last_entry_of_today(owner):
    tove = make.member(owner.studio)
    lot = make.lot(owner)
    pull(owner, lot.pk, D(5), press=make.press())
    pull(tove, lot.pk, D(7), press=make.press())
    undo(owner, press=make.press())
    assert held(lot) == 43
    with clock.as_of(clock.now() + dt.timedelta(days=2)), pytest.raises(Refusal, match="nothing of today"):
        undo(tove, press=make.press())


def test_undo_that_would_go_below_zero_is_told(owner):
    lot = make.lot(owner, grams="5")
    entry = put_back(owner, lot.pk, D(5), press=make.press())
    pull(owner, lot.pk, D(9), press=make.press())
    with pytest.raises(Short):
        undo(owner, press=make.press(), entry_id=entry.pk)
    assert held(lot) == 1
    assert book_is_true(lot)


def test_a_recount_stores_what_was_found(owner):
    lot = make.lot(owner, grams="50")
    entry = recount(owner, lot.pk, D("48.8"), press=make.press())
    assert held(lot) == D("48.8")
    assert entry.movements.get().amount == D("-1.2")
    assert book_is_true(lot)


def test_a_pull_recorded_after_the_recount_that_saw_it_changes_nothing(owner):
    with clock.as_of(ago(30)):
        lot = make.lot(owner, grams="50")
    recount(owner, lot.pk, D(40), press=Press("r", ago(2)))
    entry = pull(owner, lot.pk, D(6), press=Press("late", ago(5)))
    assert held(lot) == 40
    assert book_is_true(lot)
    assert sorted(m.kind for m in entry.movements.all()) == ["pulled", "recount"]
    pull(owner, lot.pk, D(6), press=Press("after", ago(1)))
    assert held(lot) == 34


def test_an_old_pull_taken_back_after_a_recount_changes_nothing(owner):
    with clock.as_of(ago(40)):
        lot = make.lot(owner, grams="50")
    with clock.as_of(ago(30)):
        entry = pull(owner, lot.pk, D(10), press=make.press())
    recount(owner, lot.pk, D(39), press=Press("r", ago(5)))
    undo(owner, press=make.press(), entry_id=entry.pk)
    assert held(lot) == 39
    assert book_is_true(lot)


def test_a_late_recount_counts_what_happened_since(owner):
    with clock.as_of(ago(40)):
        lot = make.lot(owner, grams="50")
    with clock.as_of(ago(3)):
        pull(owner, lot.pk, D(10), press=make.press())
    recount(owner, lot.pk, D(48), press=Press("r", ago(5)))  # found before the pull
    assert held(lot) == 38
    assert book_is_true(lot)


def test_a_recount_taken_back_makes_the_one_before_count_again(owner):
    with clock.as_of(ago(40)):
        lot = make.lot(owner, grams="50")
    recount(owner, lot.pk, D(45), press=Press("one", ago(20)))
    second = recount(owner, lot.pk, D(30), press=Press("two", ago(10)))
    undo(owner, press=make.press(), entry_id=second.pk)
    assert held(lot) == 45
    assert Lot.objects.get(pk=lot.pk).recounted_at == Entry.objects.get(client_key="one").happened_at


def test_bags_of_one_wool_go_together_others_do_not(owner):
    one, two = make.lot(owner, dye_lot="1"), make.lot(owner, grams="8", dye_lot="2")
    entry = merge(owner, two.pk, one.pk, press=make.press())
    assert (held(one), held(two)) == (58, 0)
    assert "dye lots" in entry.note
    with pytest.raises(Refusal, match="same wool"):
        merge(owner, one.pk, make.lot(owner, "rust").pk, press=make.press())
    with pytest.raises(Refusal, match="empty already"):
        merge(owner, two.pk, one.pk, press=make.press())


def test_a_delivery_makes_lots_with_the_colour_and_drawer_of_the_last(owner):
    lot = make.lot(owner, srgb="#6f7d43", drawer="D1")
    same = make.press()
    parcels = [Parcel(lot.item_id, D(25), "M-31"), Parcel(lot.item_id, D(50), "M-32", "B2")]
    receive(owner, parcels, press=same)
    receive(owner, parcels, press=same)
    new = Lot.objects.filter(dye_lot__startswith="M-").order_by("dye_lot")
    assert [(each.on_hand, each.srgb, each.drawer.name) for each in new] == [
        (25, "#6f7d43", "D1"),
        (50, "#6f7d43", "B2"),
    ]
    with pytest.raises(Refusal):
        receive(owner, [], press=make.press())


def test_a_viewer_changes_nothing(owner):
    viewer = make.member(owner.studio, "viewer", "vera")
    lot = make.lot(owner)
    from django.core.exceptions import PermissionDenied

    for verb in (pull, put_back, split, discard, recount):
        with pytest.raises(PermissionDenied, match="look on"):
            verb(viewer, lot.pk, D(1), press=make.press())


def test_what_lies_ahead_has_not_happened(owner):
    lot = make.lot(owner)
    with pytest.raises(Refusal, match="ahead"):
        pull(owner, lot.pk, D(1), press=Press("k", ago(-30)))


EXAMPLES = 100 if os.environ.get("WEMBIT_TESTS") == "all" else 12
STEPS = st.lists(
    st.tuples(st.sampled_from(["pull", "back", "recount", "undo", "split"]), st.integers(1, 30), st.integers(0, 20)),
    max_size=12,
)


@settings(
    max_examples=100 if os.environ.get("WEMBIT_TESTS") == "all" else 12,
    suppress_health_check=[HealthCheck.function_scoped_fixture],
)
@given(STEPS)
def test_whatever_happens_the_book_is_the_sum_of_its_lines(owner, steps):
    with clock.as_of(ago(100)):
        lot = make.lot(owner, grams="60")
    for verb, amount, hours in steps:
        key = make.press(happened_at=ago(hours))
        try:
            match verb:
                case "pull":
                    pull(owner, lot.pk, D(amount), press=key)
                case "back":
                    put_back(owner, lot.pk, D(amount), press=key)
                case "recount":
                    recount(owner, lot.pk, D(amount), press=key)
                case "split":
                    split(owner, lot.pk, D(amount), press=key)
                case "undo":
                    undo(owner, press=make.press())
        except Refusal:
            pass
    for each in Lot.objects.of(owner.studio):
        assert each.on_hand >= 0
        assert book_is_true(each)
