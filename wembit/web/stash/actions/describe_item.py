"""Say anew what an item is: its name, breed and form, how much of it should be free, what a metre of it weighs."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404

from wembit.web.errors import Refusal
from wembit.web.stash.looks import tell_looks
from wembit.web.stash.models import Item
from wembit.web.studio.models import MAKER, Member

# a cover weighs by its fibre's thickness, filling by its form; eyes and wire serve by size and make
REACHES_FIGURES = ("breed", "own_breed_id", "form", "size_mm", "told")


@transaction.atomic
def describe_item(member: Member, item_id: UUID, **said: str | Decimal | None) -> Item:
    """Keep what is said of `name`, `breed`, `own_breed_id`, `form`, `minimum` (in its unit), `linear_g_m`; it
    holds for all its bags.

    Raises `Refusal` for an empty name or one that another item has, `Http404`.
    """
    member.must_be(MAKER)
    item = get_object_or_404(Item.objects.of(member.studio), pk=item_id)
    if any(getattr(item, name) != said[name] for name in REACHES_FIGURES if name in said):
        tell_looks(member.studio, [item.pk])
    for name, value in said.items():
        setattr(item, name, " ".join(str(value).split()) if name == "name" else value)
    if not item.name:
        raise Refusal("Give it a name, as it stands on the label.", "name")
    try:
        with transaction.atomic():
            item.save(update_fields=list(said))
    except IntegrityError:
        raise Refusal(
            f"There is a {item.name} of that kind on the shelf already. Choose another name.", "name"
        ) from None
    return item
