"""The sill as a page shows it."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence
from typing import TYPE_CHECKING
from uuid import UUID

from django.template.loader import render_to_string

from wembit.web.plan.bench_plan import BenchPlan

from .figures import OnSill
from .layout import sill
from .upright import upright

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio


def sill_of(studio: Studio, rows: Sequence[OnSill], plan: BenchPlan, today: dt.date) -> str:
    """The sill drawn, for wide and for narrow screens; nothing where nothing stands on it."""
    drawn = {
        "studio": studio,
        "today": today,
        "sill": sill(rows, plan.hours, today, studio.decimal_mark),
        "upright": upright(rows, plan.hours, today, studio.decimal_mark),
    }
    return render_to_string("plan/sill/_sill.html", drawn) if rows else ""


def picked(picture: str, ids: Iterable[UUID]) -> str:
    """The picture with some figures picked; the sill itself is drawn for all pages alike."""
    for pk in ids:
        plain, marked = (f'class="pick stand{more}" data-of="{pk}"' for more in ("", " in-hand"))
        picture = picture.replace(plain, f'{marked} aria-current="true"')
    return picture
