"""One's own hand: what is shown to the scale a few times is a weight, and guesses are held against the scale."""

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, told, words
from wembit.web.bench.models import Guess
from wembit.web.studio.models import Member


def show(client, kind, grams, guessed="", **more):
    return post(client, "bench/hand/show/", kind=kind, amount=str(grams), guessed=str(guessed), **more)


def test_three_of_a_kind_are_a_weight_wherever_one_is_asked(client, owner):
    bag = make.lot(owner, "moss", "50")
    for grams in (2.0, 2.4):
        show(client, "handful", grams)
    assert "lay on 1 more, and it counts" in words(get(client, "bench/hand/"))
    assert "Show Wembit your handful" in told(post(client, f"stash/lot/{bag.pk}/take/", amount="a handful"))
    show(client, "handful", 2.8)
    page = words(get(client, "bench/hand/"))
    assert "2.4 g , eight times in ten" in page or "2.4 g, eight times in ten" in page
    assert "“a handful” is understood" in page
    post(client, f"stash/lot/{bag.pk}/take/", amount="two handfuls")
    bag.refresh_from_db()
    assert float(bag.on_hand) == pytest.approx(45.2)


def test_guesses_are_held_against_the_scale_and_say_how_the_hand_errs(client):
    assert "Every dot will be one of your guesses" in words(get(client, "bench/hand/"))
    for _ in range(6):
        show(client, "tuft", "1.5", "1")
    page = get(client, "bench/hand/")
    assert "1.5 g : you guessed 1 g" in words(page) or "1.5 g: you guessed 1 g" in words(page)
    assert page.count('class="dot-of"') == 6
    assert "more than you guess" in words(page)


def test_a_hand_is_its_owners(client, owner):
    tove = make.member(owner.studio)
    for _ in range(3):
        show(client, "pinch", "0.1")
    assert Member.objects.get(pk=owner.pk).hand == {"pinch": 0.1}
    assert Member.objects.get(pk=tove.pk).hand == {}
    assert "is understood" not in words(get(signed_in(tove), "bench/hand/"))


@pytest.mark.parametrize(
    ("kind", "grams", "guessed", "said"),
    [
        ("fistful", 1, "", "Say what it is"),
        ("tuft", "", "", "Write how much"),
        ("tuft", 0, "", "above nothing"),
        ("tuft", 501, "", "up to 500 g"),
        ("tuft", 1, "-1", "below nothing"),
        ("tuft", 1, "600", "up to 500 g"),
    ],
)
def test_what_cannot_be_is_told_and_kept(client, kind, grams, guessed, said):
    answer = show(client, kind, grams, guessed)
    assert said in told(answer)
    assert not Guess.objects.exists()


def test_z_takes_a_weighing_back_with_what_it_taught(client, owner):
    for _ in range(3):
        show(client, "wisp", "0.05")
    post(client, "undo/")
    assert Guess.objects.count() == 2
    assert Member.objects.get(pk=owner.pk).hand == {}
    viewer = signed_in(make.member(owner.studio, "viewer", "vera"))
    assert show(viewer, "wisp", "0.05").status_code == 403
