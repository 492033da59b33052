"""The page of a fibre, what the scale learns of it, and the table of breeds."""

import csv
from decimal import Decimal as D

import pytest

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, text, told, words
from tests.web.shared import shared
from wembit.core.craft.materials import BREEDS, CRIMPS, FELTING, TOUCHES, USES
from wembit.core.tables import read_table
from wembit.web.stash.actions.keep_breed import keep_breed
from wembit.web.stash.file_rows.stash_file import fates
from wembit.web.stash.models import Item, OwnBreed
from wembit.web.studio.models import VIEWER


def own_breed(member, name, micron_um) -> OwnBreed:
    return keep_breed(member, name, micron_um, 120, crimp="", felting="", touch="", uses=["core"])


@shared
def moss(owner):
    return make.lot(owner, "moss", "50", dye_lot="M-30")


def test_the_page_shows_bags_use_and_what_is_known(client, owner, moss):
    make.lot(owner, "moss", "8", dye_lot="M-31")
    post(client, f"stash/lot/{moss.pk}/take/", amount="7.5")
    post(client, f"stash/lot/{moss.pk}/put-back/", amount="2.5")
    page = words(get(client, f"stash/fibre/{moss.item_id}/"))
    assert "53 g, 53 g free" in page
    assert "M-30" in page
    assert "M-31" in page
    assert "At most 5 g in a month" in page
    assert "21 µm" in page
    assert "common practice" in page
    assert f'href="/s/saltgrass/stash/fibre/{moss.item_id}/"' in get(client, f"stash/lot/{moss.pk}/")


def test_who_needs_it_is_named(client, owner, moss):
    make.project(owner, make.figure(owner, fibre=moss))
    page = words(get(client, f"plan/needed-by/{moss.item_id}/"))
    assert "Market" in page
    assert "Chosen for Pebble" in page
    other = make.lot(owner, "spare", "3")
    assert "No figure asks for it" in get(client, f"plan/needed-by/{other.item_id}/")


def test_twenty_centimetres_a_palm_and_a_pinch_are_learnt_and_used(client, owner, moss):
    learn = f"stash/fibre/{moss.item_id}/learn/"
    assert post(client, learn, cm20="3", palm="0,4", pinches="0.5", note="grips well").status_code == 302
    item = Item.objects.get(pk=moss.item_id)
    assert (item.linear_g_m, item.palm_g, item.pinch_g, item.note) == (15, D("0.4"), D("0.05"), "grips well")
    for amount, left in (("20 cm", "47"), ("two palms", "46.2"), ("4 pinches", "46")):
        post(client, f"stash/lot/{moss.pk}/take/", amount=amount)
        moss.refresh_from_db()
        assert moss.on_hand == D(left)
    asked = {"name": "amount", "amount": "10 cm", "measure": "weight", "item": str(moss.item_id)}
    assert "1.5 g" in text(client.get(client.base + "understood/", asked))
    assert "no unit here" in text(client.get(client.base + "understood/", {**asked, "item": "none"}))


def test_a_length_of_what_is_no_strand_is_no_weight(client, owner):
    batt = make.lot(owner, "oat", "50", form="batt")
    assert "no unit here" in told(post(client, f"stash/lot/{batt.pk}/take/", amount="20 cm"))
    assert "Show Wembit a palm" in told(post(client, f"stash/lot/{batt.pk}/take/", amount="a palm"))


@pytest.mark.parametrize(
    ("change", "said"),
    [({"cm20": "long"}, "cannot be read"), ({"palm": "0"}, "Write at least"), ({"own_breed": "x"}, "Choose a breed")],
)
def test_what_cannot_be_learnt_is_told_and_stays(client, moss, change, said):
    answer = post(client, f"stash/fibre/{moss.item_id}/learn/", note="kept words", **change)
    assert said in told(answer)
    assert "kept words" in text(answer)


def test_a_breed_of_ones_own_is_used_wherever_its_diameter_counts(client, owner, moss):
    given = {
        "breed_name": "Marsh longwool",
        "micron_um": "38,5",
        "staple_mm": "160",
        "felting": "quickly",
        "uses": ["core", "coat"],
    }
    assert post(client, "stash/breeds/", **given).status_code == 302
    own = OwnBreed.objects.get()
    assert own.as_breed().micron_um == 38.5
    assert own.as_breed().uses == ["core", "coat"]
    post(client, f"stash/fibre/{moss.item_id}/learn/", own_breed=str(own.pk))
    item = Item.objects.get(pk=moss.item_id)
    assert item.source.micron_um == 38.5
    assert item.what == "Marsh longwool tops"
    assert "Marsh longwool tops" in get(client, "colour/?colour=6f7d43")
    assert "Marsh longwool own" in words(get(client, "stash/breeds/"))


def test_a_breed_of_ones_own_is_chosen_at_the_stocktake_sieved_and_written_out(client, owner, studio, moss):
    own = own_breed(owner, "Marsh longwool", 38.5)
    given = {"kind": "fibre", "name": "moss", "form": "tops", "breed": str(own.pk), "amount": "40"}
    assert post(client, "stash/stocktake/", **given).status_code == 302
    assert post(client, "stash/stocktake/", **given | {"key": "another"}).status_code == 302
    item = Item.objects.get(own_breed=own)
    assert item.lots.count() == 2 and item != moss.item, "the same name of another breed is another fibre"
    shelf = get(client, f"stash/?breed={own.pk}")
    assert "Marsh longwool tops" in words(shelf)
    assert shelf.count('class="lot pick"') == 2
    assert get(client, "stash/?words=longwool").count('class="lot pick"') == 2
    assert get(client, "stash/?breed=unknown").count('class="lot pick"') == 0
    rows = list(csv.DictReader(client.get(client.base + "stash/files/stash.csv").getvalue().decode().splitlines()))
    assert [row["breed"] for row in rows].count("Marsh longwool") == 2
    fate = fates(studio, read_table(b"name,form,breed,amount\nfern,batt,marsh LONGWOOL,12\n"))[0]
    assert fate.given["own_breed_id"] == own.pk
    lot = make.lot(owner, "sedge", "20", form="batt")
    post(client, f"stash/lot/{lot.pk}/describe/", name="sedge", breed=str(own.pk), form="batt", dye_lot="", drawer="")
    assert Item.objects.get(pk=lot.item_id).source.micron_um == 38.5
    assert f'value="{own.pk}" selected' in get(client, f"stash/lot/{lot.pk}/")


def test_another_studios_breed_cannot_be_chosen(client, owner):
    there = own_breed(make.studio_owner("Mudflat", "anselm"), "Heather sheep", 33)
    answer = post(client, "stash/stocktake/", kind="fibre", name="moss", form="tops", breed=str(there.pk), amount="40")
    assert answer.status_code == 422
    assert not Item.objects.of(owner.studio).exists()
    assert "Heather sheep" not in get(client, "stash/stocktake/")


@pytest.mark.parametrize(
    ("change", "said"),
    [({"breed_name": " "}, "Give the breed a name"), ({"micron_um": "thin"}, "5 to 200"), ({"micron_um": "900"}, "5 to 200"),
     ({"staple_mm": "-4"}, "length of its locks")],
)  # fmt: skip
def test_a_breed_that_cannot_be_is_told_and_stays(client, owner, change, said):
    answer = post(client, "stash/breeds/", **({"breed_name": "Marsh", "micron_um": "30", "uses": "core"} | change))
    assert said in told(answer)
    assert 'value="core" checked' in text(answer)
    post(client, "stash/breeds/", breed_name="Marsh", micron_um="30")
    assert "already" in told(post(client, "stash/breeds/", breed_name="marsh", micron_um="30"))


def test_the_table_says_of_every_breed_what_a_maker_asks():
    for breed in BREEDS.values():
        assert breed.crimp in CRIMPS
        assert breed.felting in FELTING
        assert breed.touch in TOUCHES
        assert set(breed.uses) <= set(USES)


def test_a_viewer_reads_and_teaches_nothing(studio, client, moss):
    viewer = signed_in(make.member(studio, VIEWER, "una"))
    assert "Show it on the scale" not in get(viewer, f"stash/fibre/{moss.item_id}/")
    assert post(viewer, f"stash/fibre/{moss.item_id}/learn/", palm="1").status_code == 403
    assert post(viewer, "stash/breeds/", breed_name="x", micron_um="20").status_code == 403


def test_a_notion_has_no_page_of_a_fibre(client, owner):
    eyes = make.notion_lot(owner)
    assert client.get(client.base + f"stash/fibre/{eyes.item_id}/").status_code == 404
