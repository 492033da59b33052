"""A studio of any size, grown out of the demo: shelf and ledger by SQL, figures, projects, makings through the own actions."""

from __future__ import annotations

import datetime as dt
import random
import subprocess
import sys
import uuid
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import TYPE_CHECKING

import psycopg

from tests.serving import CHECKOUT, environment
from wembit.web.stash.swatch import LOOK, swatches

if TYPE_CHECKING:
    from wembit.web.studio.models import Member

GROW_SHELF, GROW_LEDGER = ((Path(__file__).parent / f"grow_{what}.sql").read_text() for what in ("shelf", "ledger"))
EACH = 24  # lines on a grown bag


@dataclass(frozen=True)
class Size:
    """Counts of a studio; `makings` are those in hand."""

    fibres: int
    lots: int
    movements: int
    figures: int
    projects: int
    makings: int


MIDDLE = Size(fibres=125, lots=500, movements=13_000, figures=50, projects=40, makings=75)
BIG = Size(fibres=500, lots=2_000, movements=51_600, figures=200, projects=150, makings=300)


def grow(database: str, size: Size) -> None:
    """Bring a database with the demo to that size in a process of its own; what is there stays."""
    counts = [f"{name}={count}" for name, count in asdict(size).items()]
    subprocess.run(
        [sys.executable, "-m", "benchmarks.big", *counts], cwd=CHECKOUT, env=environment(database), check=True
    )
    with psycopg.connect(database, autocommit=True) as connection:
        connection.execute("VACUUM ANALYZE")


def main(size: Size) -> None:
    """The shelf first, so that figures can choose from it, then plans, then what is begun."""
    import django

    django.setup()
    from wembit.web.studio.models import OWNER, Member

    grow_shelf(size)
    owner = Member.objects.select_related("studio").get(studio__slug="saltgrass", role=OWNER)
    grow_figures(owner, size.figures)
    grow_projects(owner, size.projects)
    grow_makings(owner, size.makings)


def grow_shelf(size: Size) -> None:
    """Fibres, bags and lines of the ledger."""
    from django.db import connection

    from wembit.web.stash.models import Item, Lot, Movement

    fibres = max(size.fibres - Item.objects.filter(kind="fibre").count(), 0)
    lots = max(size.lots - Lot.objects.count(), 0)
    with connection.cursor() as cursor:
        cursor.execute(GROW_SHELF, {"fibres": fibres, "lots": lots, "each": EACH, "mark": uuid.uuid4().hex[:6]})
        tell_colours(cursor)
        pairs = max(size.movements - Movement.objects.count(), 0) // 2
        cursor.execute(GROW_LEDGER, {"pairs": pairs, "mark": uuid.uuid4().hex[:6]})


def tell_colours(cursor) -> None:
    """A colour with its curve for every bag that has none."""
    chance = random.Random(3)
    cursor.execute("SELECT id FROM stash_lot WHERE curve IS NULL AND NOT waste")
    bags = [row[0] for row in cursor.fetchall()]
    looks = swatches([f"#{chance.randrange(0x1000000):06x}" for _ in bags])
    names = ", ".join(f"{name} = %({name})s" for name in LOOK)
    for bag, look in zip(bags, looks, strict=True):
        cursor.execute(f"UPDATE stash_lot SET {names} WHERE id = %(bag)s", {**look, "bag": bag})


def grow_figures(owner: Member, count: int) -> None:
    """Copies of the demo's figures, half of their slots in the fibres that were grown."""
    from wembit.web.figures.actions.copy_figure import copy_figure
    from wembit.web.figures.models import Choice, Figure
    from wembit.web.stash.models import Item

    chance = random.Random(count)
    figures = list(Figure.objects.of(owner.studio).order_by("made_at")[:8])
    wools = list(Item.objects.of(owner.studio).filter(name__startswith="wool "))
    for n in range(Figure.objects.count(), count):
        figure = figures[n % len(figures)]
        copy = copy_figure(owner, figure.pk, f"{figure.name} {n}")
        for choice in Choice.objects.filter(colourway__version__figure=copy):
            if wools and chance.random() < 0.5:
                choice.item = chance.choice(wools)
                choice.save()


def grow_projects(owner: Member, count: int) -> None:
    """Four of a figure each, due within two months."""
    from wembit.web import clock
    from wembit.web.figures.models import Colourway
    from wembit.web.plan.actions.plan_project import plan_project
    from wembit.web.plan.models import PLANNED, Project

    today = clock.today(owner.studio)
    ways = list(Colourway.objects.of(owner.studio).order_by("version__figure__made_at", "pk"))
    for n in range(Project.objects.filter(state=PLANNED).count(), count):
        due = today + dt.timedelta(days=20 + n % 60)
        plan_project(owner, ways[n * 7 % len(ways)].pk, name=f"Stall {n}", count=4, due=due)


def grow_makings(owner: Member, count: int) -> None:
    """Begun of the open projects, turn by turn."""
    from wembit.web.bench.actions.begin_making import begin_making
    from wembit.web.bench.models import Making
    from wembit.web.bench.queries import to_begin

    missing = count - Making.objects.filter(finished_at=None).count()
    while missing > 0:
        waiting = to_begin(owner.studio)[:missing]
        if not waiting:
            raise RuntimeError(f"{missing} makings have no project left to begin of")
        for project in waiting:
            begin_making(owner, project.pk)
        missing -= len(waiting)


if __name__ == "__main__":
    main(Size(**{name: int(given) for name, _, given in (word.partition("=") for word in sys.argv[1:])}))
