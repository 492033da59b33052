"""The stash as files: out, in with a look first, in again, and what is refused; palettes and the shade card."""

import csv
import io
from decimal import Decimal as D

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from tests.web import factories as make
from tests.web.conftest import signed_in
from tests.web.helpers import get, post, text, told, words
from wembit.web.stash.actions.undo import undo
from wembit.web.stash.models import Entry, Item, Lot, Movement, StashFile
from wembit.web.studio.models import VIEWER


def table(content: str, encoding="utf-8", name="bags.csv") -> SimpleUploadedFile:
    return SimpleUploadedFile(name, content.encode(encoding), "text/csv")


def looked_at(client, content, **more) -> StashFile:
    answer = client.post(client.base + "stash/files/", {"table": table(content, **more)})
    assert answer.status_code == 302, told(answer)
    return StashFile.objects.latest("made_at")


def taken_in(client, content, **more) -> StashFile:
    file = looked_at(client, content, **more)
    while not file.finished_at:
        assert post(client, f"stash/files/{file.pk}/go-on/").status_code in (200, 302)
        file.refresh_from_db()
    return file


def out(client, name="stash") -> list[dict]:
    answer = client.get(client.base + f"stash/files/{name}.csv")
    body = b"".join(answer.streaming_content).decode()
    assert answer["Content-Type"].startswith("text/csv")
    assert "attachment" in answer["Content-Disposition"]
    assert "\r\n" in body
    return list(csv.DictReader(io.StringIO(body, newline="")))


def as_csv(rows) -> str:
    made = io.StringIO()
    writer = csv.DictWriter(made, rows[0])
    writer.writeheader()
    writer.writerows(rows)
    return made.getvalue()


BAGS = "name,form,breed,grams,colour,drawer,dye lot\nmoss,sliver,Merino,42.5,#6f7d43,D1,M-30\nfell,fleece,,,,E1,\n"


def test_nothing_is_kept_before_one_has_looked(client, studio):
    file = looked_at(client, BAGS)
    page = words(get(client, f"stash/files/{file.pk}/"))
    assert "2 new bag" in page
    assert "Take it in" in page
    assert not Lot.objects.of(studio).filter(waste=False).exists()


def test_a_table_becomes_bags(client, studio):
    file = taken_in(client, BAGS)
    moss, fell = Lot.objects.of(studio).filter(waste=False).select_related("item", "drawer").order_by("-item__name")
    assert (moss.on_hand, moss.item.form, moss.item.breed, moss.hue, moss.drawer.name, moss.dye_lot) == (
        D("42.5"), "sliver", "merino", "green", "D1", "M-30",
    )  # fmt: skip
    assert not fell.weighed
    assert fell.item.breed == "unknown"
    assert moss.curve is not None
    assert file.counts == {"new bag": 2}
    assert Movement.objects.filter(kind="opening").count() == 2


def test_the_same_file_twice_doubles_nothing_and_equal_rows_are_two_bags(client, studio):
    twins = BAGS + "moss,sliver,Merino,42.5,#6f7d43,D1,M-30\n"
    for _ in range(2):
        file = taken_in(client, twins)
        assert Lot.objects.of(studio).filter(waste=False).count() == 3
    assert file.counts == {"came in before": 3}


def test_out_in_and_out_again_are_equal(client, owner):
    make.lot(owner, "moss", "42.5", dye_lot='M "30", new')
    make.lot(owner, "Möwe, grau", None, form="fleece")
    make.notion_lot(owner)
    make.notion_lot(owner, "wire", "940", "wire", "mm")
    before = out(client)
    file = taken_in(client, as_csv(before))
    assert file.counts == {"as it is": 4}
    assert out(client) == before
    there = signed_in(make.studio_owner("Dune", "ana"))
    taken_in(there, as_csv(before))
    after = out(there)
    assert [{**row, "bag": ""} for row in sorted(after, key=lambda row: row["name"])] == [
        {**row, "bag": ""} for row in sorted(before, key=lambda row: row["name"])
    ]


def test_a_known_bag_is_said_anew_and_its_weight_is_a_recount(client, owner):
    lot = make.lot(owner, "moss", "40")
    [row] = out(client)
    file = looked_at(client, as_csv([row | {"amount": "38,5", "drawer": "B7", "colour": "#7a7a3c"}]))
    page = words(get(client, f"stash/files/{file.pk}/"))
    assert "changed : 38.5 instead of 40 g, drawer B7, colour #7a7a3c" in page.replace("changed:", "changed :")
    taken_in(client, as_csv([row | {"amount": "38,5", "drawer": "B7", "colour": "#7a7a3c"}]))
    lot.refresh_from_db()
    assert (lot.on_hand, lot.drawer.name, lot.srgb) == (D("38.5"), "B7", "#7a7a3c")
    assert lot.movements.filter(kind="recount").get().amount == D("-1.5")


def test_a_column_that_is_not_there_changes_nothing(client, owner):
    lot = make.lot(owner, "moss", "40", dye_lot="M-1")
    taken_in(client, f"bag,form,amount\n{lot.pk},tops,41\n")
    lot.refresh_from_db()
    assert (lot.on_hand, lot.drawer.name, lot.dye_lot, lot.srgb) == (41, "A1", "M-1", "#6f7d43")


@pytest.mark.parametrize(
    ("content", "encoding", "said"),
    [
        ("name;form;grams\nMöwe;tops;3,5\n", "latin-1", "Latin-1, parted by semicolons"),
        ("name\tform\tgrams\nMöwe\ttops\t3.5\n", "utf-16", "UTF-16, parted by tabs"),
        ("\ufeffname,form,grams\nMöwe,tops,3.5\n", "utf-8", "UTF-8, parted by commas"),
    ],
)
def test_a_spreadsheets_ways_are_read_rightly(client, studio, content, encoding, said):
    file = looked_at(client, content, encoding=encoding)
    assert said in words(get(client, f"stash/files/{file.pk}/"))
    taken_in(client, content, encoding=encoding)
    assert Lot.objects.of(studio).get(item__name="Möwe").on_hand == D("3.5")


ODD = """name,form,grams,colour,breed
a,wolle,3,,
b,tops,three,,
c,tops,-3,,
d,tops,3,green,
e,tops,3,,sheepdog
f,,3,,
g,tops,5,#123456,merino
"""


def test_rows_that_cannot_be_read_are_refused_with_the_reason_and_reported(client, studio):
    file = looked_at(client, ODD)
    page = words(get(client, f"stash/files/{file.pk}/"))
    assert "6 refused" in page
    assert "“three” cannot be read" in page
    assert "form is missing" in page
    file = taken_in(client, ODD)
    assert Lot.objects.of(studio).filter(waste=False).get().item.name == "g"
    report = client.get(client.base + f"stash/files/{file.pk}/report/").content.decode()
    rows = list(csv.reader(io.StringIO(report, newline="")))
    assert rows[0][:2] == ["row", "why"]
    assert [row[0] for row in rows[1:]] == ["2", "3", "4", "5", "6", "7"]
    assert rows[1][2:] == ["a", "wolle", "3", "", ""]


@pytest.mark.parametrize(
    ("content", "said"),
    [
        ("", "empty"),
        ("name,form\n", "no row under it"),
        ("a,b\n1,2\n", "No column says"),
        ('form\n"tops\n', "not closed"),
    ],
)
def test_what_is_no_stash_is_told(client, content, said):
    assert said in told(client.post(client.base + "stash/files/", {"table": table(content)}))


def test_no_file_is_told(client):
    assert "Choose a CSV file" in told(client.post(client.base + "stash/files/"))


def test_a_long_table_comes_in_piece_by_piece_and_shows_how_far(client, studio):
    content = "name,form,grams\n" + "".join(f"wool {n % 40},tops,{n % 90 + 1}\n" for n in range(2100))
    file = looked_at(client, content)
    assert "and 2000 more rows" in words(get(client, f"stash/files/{file.pk}/"))
    answer = client.post(client.base + f"stash/files/{file.pk}/go-on/", headers={"HX-Request": "true"})
    assert "2000 of 2100 rows are read" in words(text(answer))
    assert 'hx-trigger="load' in text(answer)
    post(client, f"stash/files/{file.pk}/go-on/")
    file.refresh_from_db()
    assert file.finished_at
    assert Lot.objects.of(studio).filter(waste=False).count() == 2100
    assert Item.objects.of(studio).filter(name__startswith="wool").count() == 40
    assert Entry.objects.of(studio).count() == 2


def test_too_many_rows_are_told(client, monkeypatch):
    monkeypatch.setattr("wembit.web.stash.import_export.views.TABLE_ROWS", 1)
    assert "2 rows; 1 are the most" in told(client.post(client.base + "stash/files/", {"table": table(BAGS)}))


def test_what_came_in_is_taken_back_in_one_press(client, owner, studio):
    taken_in(client, BAGS)
    undo(owner, press=make.press())
    assert not Lot.objects.of(studio).filter(on_hand__gt=0).exists()


def test_the_ledger_goes_out_line_by_line(client, owner):
    lot = make.lot(owner, "moss", "40")
    post(client, f"stash/lot/{lot.pk}/take/", amount="2.5")
    rows = out(client, "ledger")
    assert [(row["kind"], row["amount"], row["unit"], row["bag"]) for row in rows] == [
        ("opening", "40", "g", str(lot.pk)),
        ("pulled", "-2.5", "g", str(lot.pk)),
    ]
    assert rows[1]["by"] == "Mira"
    assert sum(D(row["amount"]) for row in rows) == D("37.5")


def test_a_viewer_takes_tables_out_and_brings_none_in(studio, client, owner):
    make.lot(owner)
    file = looked_at(client, BAGS)
    viewer = signed_in(make.member(studio, VIEWER, "una"))
    assert len(out(viewer)) == 1
    assert "Look at it first" not in get(viewer, "stash/files/")
    assert viewer.post(viewer.base + "stash/files/", {"table": table(BAGS)}).status_code == 403
    assert post(viewer, f"stash/files/{file.pk}/go-on/").status_code == 403


# --- palettes, shade card


def test_the_shelfs_colours_are_a_palette_and_a_palette_is_looked_for(client, owner):
    make.lot(owner, "moss", "5")
    made = client.get(client.base + "colour/palette/").content.decode()
    assert made.startswith("GIMP Palette\n")
    assert "111 125  67\tmoss, Merino tops" in made
    answer = client.post(client.base + "colour/palette/in/", {"palette": table(made, name="x.gpl")})
    assert "moss, same to the eye (0.0)" in words(text(answer))
    assert "no GIMP palette" in told(client.post(client.base + "colour/palette/in/", {"palette": table("x")}))
    assert "Choose a GIMP palette" in told(client.post(client.base + "colour/palette/in/"))


def test_the_shade_card_stands_in_true_order(client, owner):
    for name, srgb in (("soot", "#24211f"), ("pine", "#34503d"), ("samphire", "#8c9b4a"), ("brick", "#a33a2a")):
        make.lot(owner, name, "5", srgb=srgb, dye_lot="X-1")
    page = words(get(client, "colour/shade-card/"))
    places = [page.index(name) for name in ("brick", "pine", "soot")]
    assert places == sorted(places)
    assert "Merino tops, X-1" in page


# --- lines of the ledger


def test_what_was_written_down_elsewhere_comes_in_line_by_line_once(client, owner):
    moss, other = make.lot(owner, "moss", "40", dye_lot="M-1"), make.lot(owner, "moss", "9", dye_lot="M-2")
    lines = (
        "name;dye_lot;kind;amount;happened_at;note\n"
        "moss;M-1;pulled;2,5;;snail\nmoss;M-1;pulled;2,5;;snail\nMoss;m-2;returned;1;;\n"
    )
    file = taken_in(client, lines)
    moss.refresh_from_db(), other.refresh_from_db()
    assert (moss.on_hand, other.on_hand) == (35, 10)
    assert file.counts == {"new line": 3}
    assert moss.movements.filter(entry__note="snail").count() == 2
    assert taken_in(client, lines).counts == {"came in before": 3}
    moss.refresh_from_db()
    assert moss.on_hand == 35


def test_the_ledger_that_went_out_says_nothing_new_when_it_comes_in(client, owner):
    lot = make.lot(owner, "moss", "40")
    post(client, f"stash/lot/{lot.pk}/take/", amount="2.5")
    file = taken_in(client, as_csv(out(client, "ledger")))
    assert file.counts == {"as it is": 2}
    lot.refresh_from_db()
    assert lot.on_hand == D("37.5")


def test_a_line_that_cannot_be_is_refused_with_the_reason(client, owner):
    for dye_lot in ("M-1", "M-2"):
        make.lot(owner, "moss", "40", dye_lot=dye_lot)
    rows = [
        ("moss,M-1,eaten,3,", "kind is one of"),
        ("moss,,pulled,3,", "2 bags have that name"),
        ("fog,,pulled,3,", "no bag here"),
        ("moss,M-1,pulled,0,", "more than nothing"),
        ("moss,M-1,pulled,3,soon", "written as"),
        ("moss,M-1,pulled,3,2999-01-01", "lies ahead"),
        ("moss,M-1,pulled,900,", "The book says"),
    ]
    file = taken_in(client, "name,dye_lot,kind,amount,happened_at\n" + "\n".join(row for row, _ in rows) + "\n")
    assert file.counts == {"refused": len(rows)}
    assert all(said in words for (_, said), (_, words) in zip(rows, file.refused, strict=True))


def test_amounts_units_and_breeds_are_read_as_forms_read_them(client, studio):
    rows = (
        "form,breed,name,amount,notion,kind,size_mm\n"
        "tops,BFL,drift,12.5kg,,,\n"
        "batt,corrie,dune,1/2 oz,,,\n"
        ",,florist wire,3 m,wire,notion,1\n"
        ",,black eyes,12 pairs,eyes,notion,4\n"
    )
    taken_in(client, rows)
    lots = {lot.item.name: lot for lot in Lot.objects.of(studio).select_related("item")}
    assert {name: lot.on_hand for name, lot in lots.items()} == {
        "drift": 12500, "dune": pytest.approx(D("14.175"), abs=D("0.001")), "florist wire": 3000,
        "black eyes": 24,
    }  # fmt: skip
    assert (lots["drift"].item.breed, lots["dune"].item.breed) == ("bluefaced", "corriedale")


def test_a_known_bag_gets_the_name_and_the_breed_of_the_file(client, owner):
    moss, other = make.lot(owner, "moss", "50"), make.lot(owner, "moss", "20", drawer="B2")
    fern = make.lot(owner, "fern", "30")
    head = "bag,form,breed,name,amount\n"
    taken_in(client, f"{head}{moss.pk},tops,Shetland,lichen,50\n{fern.pk},tops,Merino,bracken,30\n")
    for lot in (moss, other, fern):
        lot.refresh_from_db()
    assert (moss.item.name, moss.item.breed) == ("lichen", "shetland"), "the bag goes, the other bag stays"
    assert (other.item.name, other.item.breed) == ("moss", "merino")
    assert fern.item.name == "bracken", "an only bag is renamed with its fibre"
    assert not Item.objects.filter(name="fern").exists()


def test_the_first_sentence_says_how_many_rows_were_refused(client, studio):
    file = taken_in(client, "form,breed,name,amount\ntops,Merino,moss,5\ntops,Yak,fog,5\nhat,Merino,rust,1\n")
    page = words(get(client, f"stash/files/{file.pk}/"))
    assert "3 of 3 rows are read, 2 of them refused" in page
