"""A studio in ounces and inches with a decimal comma reads its own numbers in every room."""

import re

from tests.web import factories as make
from tests.web.helpers import get, words
from tests.web.shared import shared
from wembit.web import numbers
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.studio.models import Studio


@shared
def abroad(owner):
    Studio.objects.filter(pk=owner.studio_id).update(decimal_mark=",", weight_unit="oz", length_unit="in")
    owner.studio.refresh_from_db()
    return owner


def test_a_pinch_in_ounces_is_not_nothing(abroad):
    # 1 oz = 28.349523125 g, international avoirdupois ounce
    assert numbers.grams(0.026, abroad.studio) == ("0,0009", "oz")
    assert numbers.grams(1.0, abroad.studio) == ("0,035", "oz")
    assert numbers.grams(28.349523125, abroad.studio) == ("1", "oz")
    assert numbers.span(0.02, 0.03, abroad.studio) == ("0,0007–0,0011", "oz")
    assert numbers.strand(1410, abroad.studio) == ("55,5", "in")


def test_the_bench_counts_as_the_studio_does(client, abroad):
    moss = make.lot(abroad, "moss", "100")
    making = begin_making(abroad, make.project(abroad, make.figure(abroad, fibre=moss, length=60)).pk)
    page = words(get(client, f"bench/{making.pk}/"))
    assert re.search(r"2,36 in × 2,36 in", page)
    assert not re.search(r"\d (g|mm|cm)\b", page), re.findall(r".{20}\d (?:g|mm|cm)\b", page)
    assert not re.search(r"\d\.\d", page), "a comma everywhere"
    shelf = words(get(client, f"stash/lot/{moss.pk}/"))
    assert re.search(r"[\d,]+ in\b", shelf)
