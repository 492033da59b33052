"""Found a studio."""

from __future__ import annotations

from django.db import transaction
from django.utils.text import slugify

from wembit.web.studio.models import OWNER, Member, Studio, User


@transaction.atomic
def found_studio(name: str, owner: User, **settings: str) -> Studio:
    """A studio with its owner. `settings`: timezone, currency, units."""
    name = " ".join(name.split())
    base = slugify(name)[:34] or "studio"
    taken = set(Studio.objects.filter(slug__startswith=base).values_list("slug", flat=True))
    slug = next(each for each in (base, *(f"{base}-{n}" for n in range(2, 1000))) if each not in taken)
    studio = Studio.objects.create(name=name, slug=slug, **settings)
    Member.objects.create(studio=studio, user=owner, role=OWNER)
    return studio
