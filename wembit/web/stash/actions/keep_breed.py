"""Add a breed of the studio's own to the table."""

from __future__ import annotations

from collections.abc import Sequence

from django.db import IntegrityError, transaction

from wembit.core.craft.materials import CRIMPS, FELTING, TOUCHES, USES
from wembit.web.errors import Refusal
from wembit.web.stash.models import OwnBreed
from wembit.web.studio.models import MAKER, Member


@transaction.atomic
def keep_breed(
    member: Member,
    name: str,
    micron_um: float,
    staple_mm: float | None,
    *,
    crimp: str,
    felting: str,
    touch: str,
    uses: Sequence[str],
) -> OwnBreed:
    """A source of fibre with its middle diameter in µm and staple in mm, and what it is like. Raises `Refusal`."""
    member.must_be(MAKER)
    name = " ".join(name.split())[:40]
    if not name:
        raise Refusal("Give the breed a name.", "breed_name")
    like = {
        "crimp": crimp if crimp in CRIMPS else CRIMPS[1],
        "felting": felting if felting in FELTING else FELTING[1],
        "touch": touch if touch in TOUCHES else TOUCHES[1],
        "uses": [use for use in USES if use in uses],
    }
    try:
        with transaction.atomic():
            return OwnBreed.objects.create(
                studio=member.studio, name=name, micron_um=micron_um, staple_mm=staple_mm, like=like
            )
    except IntegrityError:
        raise Refusal(f"There is a breed {name} of your own already.", "breed_name") from None
