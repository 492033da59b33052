"""What a cut shows of a part's layers."""

import pytest

from wembit.core.craft.materials import FIRMNESS, felt_mm
from wembit.core.drawing.cross_section import Laid, inside_of
from wembit.core.drawing.surface import Coat, Zone, under

MEDIUM = FIRMNESS["medium"]


def test_wool_lies_round_a_filling_whichever_is_told_first():
    filling, wool = Laid("core", "white", 0.7, is_filling=True), Laid("core", "sand", 0.3)
    for layers in ([filling, wool], [wool, filling]):
        assert inside_of(layers, (), MEDIUM).cores == (("sand", 0.3), ("white", 0.7))


@pytest.mark.parametrize("firmness", list(FIRMNESS))
def test_a_cover_is_as_thick_as_its_grams_at_the_part_s_density(firmness):
    density = FIRMNESS[firmness]
    found = inside_of([Laid("cover", "olive", cover_g_m2=120.0)], (), density)
    assert found.covers == ((felt_mm(120.0, density), Zone("olive", 0.0, 1.0)),)
    assert found.covers[0][0] == pytest.approx(120 / 1000 / density), "g/m² over g/cm³ are µm; over a thousand, mm"


def test_the_first_cover_lies_from_the_top_and_what_comes_over_another_or_a_coat_from_the_underside():
    back, belly = Laid("cover", "olive", 0.6), Laid("cover", "chalk", 0.3)
    zones = [zone for _, zone in inside_of([back, belly], (), MEDIUM).covers]
    assert zones == [Zone("olive", 0.0, 0.6), under("chalk", 0.3)]
    coat = Coat(Zone("sand", 0.0, 0.65), 13.0)
    found = inside_of([belly], [coat], MEDIUM)
    assert [zone for _, zone in found.covers] == [under("chalk", 0.3)] and found.coats == (coat,)


def test_a_soft_layer_keeps_its_thickness_and_share():
    assert inside_of([Laid("padding", "sand", 0.4, thickness_mm=3.0)], (), MEDIUM).paddings == (("sand", 3.0, 0.4),)
