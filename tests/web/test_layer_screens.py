"""The layers of a part: laid on, changed, laid later, left off."""

import html
import math
import re

import pytest

from tests.web import factories as make
from tests.web.helpers import get, post, text, told, words
from tests.web.shared import shared
from wembit.core.pose.skin import border_mm
from wembit.web.figures.models import Figure, Part
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.figures.to_core.estimating import Palette, edge_of, plan_figure

HTMX = {"HX-Request": "true"}


@shared
def figure(maker, owner) -> Figure:
    post(maker, "figures/new/", name="Marsh snail")
    found = Figure.objects.get(name="Marsh snail")
    post(maker, f"figures/{found.pk}/part/", kind="body", length="60")
    return found


def plan_of(figure):
    version = newest_version(figure)
    return plan_figure(version, parts_of(version), Palette.of(colourway_of(version)))


def layers_of(figure, key="body"):
    return list(Part.objects.get(version=newest_version(figure), key=key).layers.select_related("slot").all())


def lay(client, figure, role, slot, key="body", **given):
    """A new layer, then what its form says; its position."""
    post(client, f"figures/{figure.pk}/part/{key}/layer/", role=role, new_slot=slot)
    at = len(layers_of(figure, key)) - 1
    if given:
        answer = post(client, f"figures/{figure.pk}/part/{key}/layer/{at}/", **given)
        assert answer.status_code == 302, told(answer)
    return at


@pytest.mark.parametrize(
    ("role", "given", "kept"),
    [
        ("padding", {"thickness_mm": "3 mm", "share": "20", "firmness": "soft"},
         {"thickness_mm": 3, "share": 0.2, "firmness": "soft"}),
        ("cover", {"share": "30", "coats": "2"}, {"share": 0.3, "coats": 2}),
        ("coat", {"pulled_mm": "9 cm", "finished_mm": "2 cm", "row_spacing_mm": "13", "row_g": "0,25", "share": "50"},
         {"pulled_mm": 90, "finished_mm": 20, "row_spacing_mm": 13, "grams_per_cm": 0.05, "share": 0.5, "folded": False}),
        ("detail", {"spots": "7", "across_mm": "5"}, {"spots": 7, "across_mm": 5}),
        ("weighed", {"grams": "0.4"}, {"grams": 0.4}),
        ("core", {"share": "25", "firmness": "airy"}, {"share": 0.25, "firmness": "airy"}),
    ],
)  # fmt: skip
def test_every_kind_of_layer_is_laid_on_and_keeps_what_its_form_says(client, figure, role, given, kept):
    at = lay(client, figure, role, "mane", **given)
    layer = layers_of(figure)[at]
    assert layer.slot.name == "mane"
    assert layer.rule == pytest.approx(kept)
    plan = plan_of(figure)
    assert plan.fault is None
    assert plan.parts[0].layers[at].grams.middle > 0
    shown = dict(
        re.findall(r'name="(\w+)"[^>]*? value="([^"]*)"', get(client, f"figures/{figure.pk}/?part=body&layer={at}"))
    )
    again = {name: shown[name] for name in given if name != "firmness"}
    assert post(client, f"figures/{figure.pk}/part/body/layer/{at}/", **{**given, **again}).status_code == 302
    assert layers_of(figure)[at].rule == pytest.approx(kept), "what the form shows is what is kept"


def test_mixed_cores_always_fill_the_inside(client, figure):
    at = lay(client, figure, "core", "filling", share="60")
    shares = [layer.rule["share"] for layer in layers_of(figure) if layer.role == "core"]
    assert shares == pytest.approx([0.4, 0.6])
    post(client, f"figures/{figure.pk}/part/body/layer/{at}/drop/")
    assert [layer.rule["share"] for layer in layers_of(figure) if layer.role == "core"] == [1]


def test_spots_and_lines_are_areas(client, figure):
    at = lay(client, figure, "detail", "spots", spots="8", across_mm="4")
    one = plan_of(figure).parts[0].layers[at].grams
    post(client, f"figures/{figure.pk}/part/body/layer/{at}/", measured="line")
    post(client, f"figures/{figure.pk}/part/body/layer/{at}/", line_mm=f"{8 * math.pi * 4:.4f}", width_mm="1")
    assert layers_of(figure)[at].rule == pytest.approx({"line_mm": 8 * math.pi * 4, "width_mm": 1}, rel=1e-4)
    assert plan_of(figure).parts[0].layers[at].grams.middle == pytest.approx(one.middle, rel=1e-4)


def test_a_patch_lies_where_it_is_said_to_and_is_drawn(client, owner, figure):
    at = lay(client, figure, "detail", "saddle")
    address = f"figures/{figure.pk}/part/body/layer/{at}/"
    post(client, address, measured="patch")
    post(client, address, area_mm2="90", t="40", angle="0", stretch="2,5", pieces="2")
    assert layers_of(figure)[at].rule == {"area_mm2": 90, "t": 0.4, "angle": 0, "stretch": 2.5, "pieces": 2}
    shown = get(client, f"figures/{figure.pk}/?part=body&layer={at}")
    assert all(f'name="{name}"' in shown for name in ("t", "angle", "stretch", "pieces"))
    assert 'value="2.5"' in shown
    pink = make.lot(owner, "pink", srgb="#d99a92")
    post(client, f"figures/{figure.pk}/fibre/", slot="saddle", item=pink.item.pk)
    assert get(client, f"figures/{figure.pk}/").count('fill="#d99a92"') >= 2, "both views show it"
    assert "between 0 and 100" in told(post(client, address, t="140"))
    assert "whole number" in told(post(client, address, pieces="2.5"))


def test_a_line_runs_along_or_round(client, figure):
    at = lay(client, figure, "detail", "belt")
    address = f"figures/{figure.pk}/part/body/layer/{at}/"
    post(client, address, measured="line")
    post(client, address, line_mm="40", width_mm="3", t="60", angle="90", runs="round")
    assert layers_of(figure)[at].rule == {"line_mm": 40, "width_mm": 3, "t": 0.6, "runs": "round"}
    assert '<option value="round" selected>' in get(client, f"figures/{figure.pk}/?part=body&layer={at}")


def test_a_border_runs_along_the_line_of_the_cover_that_it_lies_over(client, figure):
    post(client, f"figures/{figure.pk}/part/body/layer/1/", share="60")
    lay(client, figure, "cover", "belly", share="20")
    at = lay(client, figure, "detail", "between")
    address = f"figures/{figure.pk}/part/body/layer/{at}/"
    post(client, address, measured="border")
    first = plan_of(figure).parts[0].layers[at].grams
    post(client, address, border_mm="6", over="belly")
    part = Part.objects.get(version=newest_version(figure), key="body")
    layers = list(part.layers.all())
    assert [edge_of(layers[at], layers), edge_of(layers[1], layers)] == pytest.approx([0.8, 0.6])
    assert plan_of(figure).parts[0].layers[at].grams.rule_g != first.rule_g


def test_a_soft_border_runs_along_the_line_of_the_cover(client, figure):
    post(client, f"figures/{figure.pk}/part/body/layer/1/", share="75")
    at = lay(client, figure, "detail", "between")
    post(client, f"figures/{figure.pk}/part/body/layer/{at}/", measured="border")
    post(client, f"figures/{figure.pk}/part/body/layer/{at}/", border_mm="6", part="50")
    part = plan_of(figure).parts[0]
    from wembit.web.figures.to_core.seating import placed_part

    placed = placed_part(part.part)
    area = border_mm(placed.shape, placed.seat, 0.75) * 6 * 0.5
    grams = part.layers[at].grams
    assert grams.rule_g == pytest.approx(area * grams.cover_g_m2 / 1e6 * 1.08)


def test_what_cannot_be_is_told_beside_its_field(client, figure):
    at = lay(client, figure, "coat", "mane")
    address = f"figures/{figure.pk}/part/body/layer/{at}/"
    answer = post(client, address, pulled_mm="40", finished_mm="30", folded="on")
    assert "at most the standing length, 20" in told(answer)
    assert 'value="30"' in text(answer)
    assert layers_of(figure)[at].rule["finished_mm"] == 13
    assert "Write" in told(post(client, address, row_g="0,4,1"))
    assert "between 0 and 100" in told(post(client, address, share="140"))
    pad = lay(client, figure, "padding", "soft")
    thick = post(client, f"figures/{figure.pk}/part/body/layer/{pad}/", thickness_mm="40", share="100")
    assert "Leaves nothing" in told(thick)
    assert "Say where the colour goes" in told(
        post(client, f"figures/{figure.pk}/part/body/layer/", role="cover", new_slot=" ")
    )
    assert "Choose what" in told(post(client, f"figures/{figure.pk}/part/body/layer/", role="fog", new_slot="x"))
    assert post(client, f"figures/{figure.pk}/part/body/layer/40/", share="1").status_code == 404


def test_a_part_holds_as_many_layers_as_it_says_and_no_more(client, figure, monkeypatch):
    monkeypatch.setattr("wembit.web.figures.actions.add_layer.LAYERS", 3)
    assert len(layers_of(figure)) == 2
    lay(client, figure, "cover", "belly", share="30")
    answer = post(client, f"figures/{figure.pk}/part/body/layer/", role="cover", new_slot="nape")
    assert "at most 3 layers" in told(answer)
    assert len(layers_of(figure)) == 3


def test_a_layer_is_laid_later_and_left_off(client, figure):
    lay(client, figure, "cover", "belly", share="30")
    assert [layer.slot.name for layer in layers_of(figure)] == ["core", "main", "belly"]
    post(client, f"figures/{figure.pk}/part/body/layer/1/later/")
    assert [layer.slot.name for layer in layers_of(figure)] == ["core", "belly", "main"]
    post(client, f"figures/{figure.pk}/part/body/layer/0/later/")
    assert [layer.slot.name for layer in layers_of(figure)] == ["belly", "core", "main"], "by one place"
    post(client, f"figures/{figure.pk}/part/body/layer/0/later/")
    post(client, f"figures/{figure.pk}/part/body/layer/1/drop/")
    assert [layer.slot.name for layer in layers_of(figure)] == ["core", "main"]
    assert "belly" not in [slot.name for slot in newest_version(figure).slots.all()]


def test_a_change_swaps_the_drawing_and_a_change_of_kind_the_tray(client, figure):
    at = lay(client, figure, "detail", "spots")
    address = f"{client.base}figures/{figure.pk}/part/body/layer/{at}/"
    plain = client.post(address, {"spots": "9"}, headers=HTMX)
    other = client.post(address, {"measured": "line"}, headers=HTMX)
    assert "HX-Retarget" not in plain.headers
    assert other.headers["HX-Retarget"] == "#stage"
    assert 'name="line_mm"' in text(other)


def test_a_pinch_is_what_the_maker_has_shown(client, figure):
    at = lay(client, figure, "weighed", "blush")
    address = f"figures/{figure.pk}/part/body/layer/{at}/"
    assert "pinch" in told(post(client, address, grams="2 pinches"))
    post(client, "house/pinch/", ten="0.4", keys_on="on")
    assert post(client, address, grams="2 pinches").status_code == 302
    assert layers_of(figure)[at].rule["grams"] == pytest.approx(0.08)


def test_a_detail_lies_on_what_is_under_it(client, owner, figure):
    dark = make.lot(owner, "soot", srgb="#24211f")
    at = lay(client, figure, "detail", "spots")
    pale = plan_of(figure).parts[0].layers[at].grams.cover_g_m2
    post(client, f"figures/{figure.pk}/fibre/", slot="main", item=str(dark.item_id))
    assert plan_of(figure).parts[0].layers[at].grams.cover_g_m2 > pale, "pale spots on a dark cover take more"
    post(client, f"figures/{figure.pk}/part/body/layer/{at}/", over="core")
    assert plan_of(figure).parts[0].layers[at].grams.cover_g_m2 == pale


def test_a_colour_that_a_cover_lies_over_stays_when_no_layer_has_it_any_more(client, figure):
    ground, over = (lay(client, figure, "cover", slot, share="50", coats="2") for slot in ("bark", "moss"))
    post(client, f"figures/{figure.pk}/part/body/layer/{over}/", over="bark")
    answer = post(client, f"figures/{figure.pk}/part/body/layer/{ground}/", slot="clay")
    assert answer.status_code == 302, told(answer)
    layers = layers_of(figure)
    assert (layers[ground].slot.name, layers[over].over.name) == ("clay", "bark")
    post(client, f"figures/{figure.pk}/part/body/layer/{over}/", over="")
    assert "bark" not in newest_version(figure).slots.values_list("name", flat=True), "nothing names it now"


def test_small_things_are_a_group(client, figure):
    lay(client, figure, "detail", "spots", spots="2", across_mm="2")
    page = words(get(client, f"figures/{figure.pk}/"))
    assert "weighed as one" in page
    assert "half of it goes back" in page


def test_a_part_without_a_shape_takes_only_what_lies_on_others(client, owner, figure):
    post(client, f"figures/{figure.pk}/part/", kind="eye", length="4")
    answer = post(client, f"figures/{figure.pk}/part/eye/layer/", role="cover", new_slot="x")
    assert "no shape of its own" in told(answer)


def test_the_loose_end_and_the_loss_follow_the_studios_habit(client, owner, figure):
    post(client, f"figures/{figure.pk}/part/", kind="leg", length="40")
    before = plan_of(figure).parts[1].layers[0].grams.rule_g
    post(client, f"figures/{figure.pk}/part/leg/", loose_end_mm="12", habit="on")
    owner.studio.refresh_from_db()
    assert owner.studio.habits == {"loose_end_mm": 12}
    assert Part.objects.get(version__figure=figure, key="leg").loose_end_mm is None
    after = plan_of(figure).parts[1].layers[0].grams.rule_g
    section = math.pi * 6**2 * 12 * 2 * 0.17 / 1000  # two legs 12 mm thick
    assert after == pytest.approx(before / 1.08 * 1.03 + section * 1.03, rel=0.01)
    post(client, f"figures/{figure.pk}/part/leg/", loose_end_mm="0")
    assert plan_of(figure).parts[1].layers[0].grams.rule_g == pytest.approx(before)


@pytest.mark.parametrize(
    ("role", "given", "said"),
    [
        ("padding", {"thickness_mm": "3"}, "within the part’s size"),
        ("coat", {"row_g": "0.2"}, "0.04 g a cm (your weighed row)"),
        ("detail", {"spots": "4", "across_mm": "5"}, "of spots and lines"),
        ("weighed", {"grams": "0.4"}, "0.4 g a piece, as you said"),
        ("cover", {"share": "40"}, "Kallmes & Corte 1960"),
        ("core", {"share": "30"}, "common practice"),
    ],
)
def test_every_number_can_be_asked_why(client, figure, role, given, said):
    at = lay(client, figure, role, "mane", **given)
    for page in (
        get(client, f"figures/{figure.pk}/?part=body&layer={at}"),
        get(client, f"figures/{figure.pk}/?part=body"),
    ):
        lines = html.unescape(words(page))
        assert said in lines
        assert "changes it" in lines.replace("change it", "changes it")
        assert "Fenton 1960" in lines


def test_the_why_of_a_core_holds_its_own_arithmetic(client, figure):
    page = html.unescape(words(get(client, f"figures/{figure.pk}/?part=body&layer=0")))
    found = re.search(r"([\d.]+) cm³ inside × 100 % × ([\d.]+) g/cm³ .*? × 1, and (\d+) % lost", page)
    volume, density, loss = map(float, found.groups())
    grams = plan_of(figure).parts[0].layers[0].grams.rule_g
    assert volume * density * (1 + loss / 100) == pytest.approx(grams, rel=0.002)
