"""A bag that is kept for a project by hand stays with it, whatever is due before; let go, due days decide again."""

from decimal import Decimal as D

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.forms import forms_of
from tests.web.helpers import get, post, text, told, words
from tests.web.shared import shared
from wembit.web.plan.models import Need, Pin, Project
from wembit.web.stash.actions.split import split
from wembit.web.stash.models import Lot, Promise
from wembit.web.studio.models import VIEWER


@shared
def bags(owner):
    """Two bags of moss, 5 g and 3 g."""
    lot = make.lot(owner, "moss", "8", dye_lot="A")
    split(owner, lot.pk, D(3), press=make.press())
    small = Lot.objects.exclude(pk=lot.pk).get(item=lot.item)
    return lot, small


@shared
def early(owner, bags):
    return make.project(owner, make.figure(owner, "Early", 40, bags[0]), count=3, days=10, name="Early")


@shared
def late(owner, bags, early):
    return make.project(owner, make.figure(owner, "Late", 30, bags[0]), count=1, days=40, name="Late")


def promised(project):
    need = Need.objects.get(project=project)
    return dict(Promise.objects.filter(need=need.pk).values_list("lot", "amount"))


def pin(client, project, lot, amount="1"):
    """The page's own form for a need, sent as a browser sends it."""
    form = next(form for form in forms_of(get(client, f"plan/{project.pk}/")) if form.action.endswith("/pin/"))
    return form.send(client, lot=str(lot.pk), amount=amount)


def test_a_kept_bag_goes_before_what_is_due_first_and_back_when_let_go(client, owner, bags, early, late):
    _, small = bags
    assert promised(late) == {}, "the earlier one takes all of it"
    assert pin(client, late, small, "1.5").status_code == 302
    assert promised(late) == {small.pk: D("1.5")}
    assert sum(promised(early).values()) == D("6.5")
    assert "1.5 g" in words(get(client, f"plan/{late.pk}/")) and "kept by hand" in words(
        get(client, f"plan/{late.pk}/")
    )
    post(client, f"plan/pin/{Pin.objects.get().pk}/let-go/")
    assert promised(late) == {}
    assert sum(promised(early).values()) == 8


def test_it_stays_when_something_else_changes(client, owner, bags, early, late):
    big, small = bags
    pin(client, late, small, "1.5")
    post(client, f"stash/lot/{big.pk}/take/", amount="2")
    post(client, f"plan/{early.pk}/move/", count="5", was_count="3", was_due=early.due.isoformat())
    assert promised(late) == {small.pk: D("1.5")}
    post(client, f"stash/lot/{small.pk}/weigh/", amount="1")
    assert promised(late) == {small.pk: D("1")}, "as much of it as there is"


def test_z_takes_it_back_and_does_it_again(client, owner, bags, early, late):
    pin(client, late, bags[1], "1.5")
    post(client, "undo/")
    assert not Pin.objects.exists() and promised(late) == {}
    post(client, "again/")
    assert promised(late) == {bags[1].pk: D("1.5")}
    post(client, f"plan/pin/{Pin.objects.get().pk}/let-go/")
    post(client, "undo/")
    assert promised(late) == {bags[1].pk: D("1.5")}


def test_a_project_that_is_given_up_keeps_nothing(client, owner, bags, early, late):
    pin(client, late, bags[1], "1.5")
    post(client, f"plan/{late.pk}/drop/")
    assert sum(promised(early).values()) == 8


@pytest.mark.parametrize(
    ("amount", "said"), [("4", "not so much in that bag"), ("0", "not so much"), ("much", "Write a weight")]
)
def test_what_cannot_be_kept_is_told_with_what_was_entered(client, owner, bags, early, late, amount, said):
    answer = pin(client, late, bags[1], amount)
    assert answer.status_code == 422
    assert said in told(answer)
    assert f'value="{amount}"' in text(answer)
    assert not Pin.objects.exists()


def test_two_do_not_keep_the_same_wool(client, owner, bags, early, late):
    pin(client, late, bags[1], "2")
    assert pin(client, early, bags[1], "2").status_code == 422
    assert pin(client, early, bags[1], "1").status_code == 302


def test_another_wool_a_closed_project_and_a_viewer(client, owner, studio, bags, early, late):
    other = make.lot(owner, "sea", "20")
    given = {"lot": str(other.pk), "amount": "1", "seen": "1"}
    post(client, f"plan/{late.pk}/pin/", **given)
    assert "needs nothing of that bag" in words(get(client, f"plan/{late.pk}/"))
    viewer = signed_in(make.member(studio, VIEWER))
    assert post(viewer, f"plan/{late.pk}/pin/", lot=str(bags[1].pk), amount="1", seen="1").status_code == 403
    assert "Keep a bag for it" not in get(viewer, f"plan/{late.pk}/")
    Project.objects.filter(pk=late.pk).update(state="dropped")
    post(client, f"plan/{late.pk}/pin/", lot=str(bags[1].pk), amount="1", seen="1")
    assert "is closed" in words(get(client, f"plan/{late.pk}/"))
    assert not Pin.objects.exists()


def test_one_bag_leaves_nothing_to_choose(client, owner):
    project = make.project(owner, make.figure(owner, fibre=make.lot(owner, "oat", "50")))
    assert "Keep a bag for it" not in get(client, f"plan/{project.pk}/")
