"""Which eyes of the shelf serve, by their colour, and what they are called where there are none."""

import pytest

from wembit.core.craft.notions import Needed, OnShelf
from wembit.core.stock.serving import alike, called

AMBER, BLACK = "#d9a441", "#151515"
SHELF = [
    OnShelf(name, "eyes", name, 4.0, 10.0, "pc", srgb)
    for name, srgb in (("amber", AMBER), ("honey", "#dfae52"), ("black", BLACK), ("untold", ""))
]


def eyes(srgb=""):
    return Needed("eyes", "eyes, 4 mm", 4.0, 2.0, "pc", "head", srgb=srgb)


@pytest.mark.parametrize(
    ("srgb", "serve"),
    [
        (AMBER, {"amber", "honey"}),
        (BLACK, {"black"}),
        ("#2f62c9", {"untold"}),  # no blue ones: those of which nobody knows
        ("", {"amber", "honey", "black", "untold"}),  # any will do
    ],
)
def test_what_serves_is_of_the_colour(srgb, serve):
    assert {offer.id for offer in alike(eyes(srgb), SHELF)} == serve


def test_a_need_is_called_by_its_colour():
    assert called(eyes()) == "eyes, 4 mm"
    assert called(eyes(AMBER)).endswith(" eyes, 4 mm")
    assert called(eyes(AMBER)) != called(eyes("#2f62c9"))
