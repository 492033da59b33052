"""A studio in which anything is done in any order: after each press every room says the same, to the hundredth of a gram."""

import datetime as dt
import os
import random
from decimal import Decimal as D

import pytest
from django.db import transaction
from django.db.models import Sum

from tests.conftest import ALL, SEED
from tests.web import factories as make
from tests.web.helpers import figure_with, get, words
from wembit.web import clock
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.actions.enough import has_enough, takes_more
from wembit.web.bench.actions.finish_making import UNWEIGHED, finish_making
from wembit.web.bench.actions.give_back import give_back
from wembit.web.bench.actions.take import take
from wembit.web.bench.actions.take_back_making import take_back_making
from wembit.web.bench.actions.take_thing import give_thing_back, take_thing
from wembit.web.bench.models import Making, MakingThing, PieceLayer, Take
from wembit.web.errors import Refusal
from wembit.web.figures.actions.add_part import add_part
from wembit.web.figures.actions.choose_fibre import choose_fibre
from wembit.web.figures.actions.remove_part import remove_part
from wembit.web.figures.actions.resize_figure import resize_figure
from wembit.web.figures.models import Figure
from wembit.web.figures.queries import colourway_of, newest_version, parts_of
from wembit.web.plan.actions.change_project import change_project
from wembit.web.plan.actions.close_project import drop_project
from wembit.web.plan.actions.needs import write_needs
from wembit.web.plan.actions.plan_project import plan_project
from wembit.web.plan.actions.use_newest_version import use_newest_version
from wembit.web.plan.models import PLANNED, RANGE, Need, Project, StandIn
from wembit.web.plan.queries import open_needs
from wembit.web.restock.actions.accept_answer import lay_thinly, take_answer_back, use_instead
from wembit.web.restock.queries import tide_lines
from wembit.web.stash.actions.describe import describe
from wembit.web.stash.actions.merge import merge
from wembit.web.stash.actions.pull import pull
from wembit.web.stash.actions.recount import recount
from wembit.web.stash.actions.split import split
from wembit.web.stash.actions.undo import undo
from wembit.web.stash.ledger import Short
from wembit.web.stash.models import FIBRE, Entry, Item, Lot, Movement, Promise
from wembit.web.studio.models import Member, Studio

FEW, ALL_OF_THEM, MOST_PLANNED = 36, 150, 4
NEAR = D("0.006")  # what rounding each making's grams to a thousandth may come to
COLOURS = ["#6f7d43", "#e8dfcc", "#3b2a20", "#a57c52", "#8fa3ad"]


class Walk:
    """What may be pressed, each with something of the studio drawn by chance; None where there is nothing to press."""

    def __init__(self, owner, chance):
        self.studio, self.chance, self.pk = owner.studio, chance, owner.pk

    @property
    def owner(self):
        """As a request finds her: nothing that was looked up for an earlier one."""
        return Member.objects.select_related("studio", "user").get(pk=self.pk)

    def any(self, model, **filters):
        rows = list(model.objects.filter(studio=self.studio, **filters).order_by("pk").values_list("pk", flat=True))
        return model.objects.get(pk=self.chance.choice(rows)) if rows else None

    def grams(self, most):
        return D(self.chance.randrange(1, max(2, int(most * 100)))) / 100

    def lay_in(self):
        name, grams = self.chance.choice("abcd"), self.chance.choice([None, "3", "40", "400"])
        make.lot(self.owner, name, grams, srgb=self.chance.choice(COLOURS))

    def lay_in_eyes(self):
        make.notion_lot(self.owner, self.chance.choice(["black eyes", "glass eyes"]), self.chance.choice(["1", "12"]))

    def weigh(self):
        lot = self.any(Lot, item__kind=FIBRE)
        recount(self.owner, lot.pk, self.grams(200), press=make.press())

    def split(self):
        split(self.owner, self.any(Lot, on_hand__gt=1, item__kind=FIBRE).pk, D("0.5"), press=make.press())

    def merge(self):
        merge(self.owner, self.any(Lot).pk, self.any(Lot).pk, press=make.press())

    def pull(self):
        lot = self.any(Lot, on_hand__gt=0)
        pull(self.owner, lot.pk, self.grams(lot.on_hand + 1), press=make.press())

    def colour(self):
        lot = self.any(Lot, item__kind=FIBRE)
        describe(self.owner, lot.pk, srgb=self.chance.choice(COLOURS), dye_lot="", drawer="A1")

    def undo(self):
        undo(self.owner, press=make.press(), entry_id=self.any(Entry, reverses=None).pk)

    def plan(self):
        if Project.objects.filter(state=PLANNED).count() >= MOST_PLANNED:
            return
        way = colourway_of(newest_version(self.any(Figure)))
        due = clock.today(self.studio) + dt.timedelta(self.chance.randrange(40))
        plan_project(self.owner, way.pk, name="", count=self.chance.randrange(1, 6), due=due)

    def more_or_fewer(self):
        project = self.any(Project, state=PLANNED)
        count = self.chance.randrange(1, 8)
        change_project(self.owner, project.pk, name="", count=count, start=project.start, due=project.due)

    def newest(self):
        use_newest_version(self.owner, self.any(Project, state=PLANNED).pk)

    def give_up(self):
        if self.chance.random() < 0.2:
            drop_project(self.owner, self.any(Project, state=PLANNED).pk)

    def begin(self):
        begin_making(self.owner, self.any(Project, state=PLANNED).pk)

    def begun_by_mistake(self):
        take_back_making(self.owner, self.any(Making, finished_at=None).pk)

    def take(self):
        layer = self.any(PieceLayer, piece__making__finished_at=None)
        lot = self.any(Lot, item=layer.item_id)
        most = layer.rule_g * self.chance.choice([0.4, 1.0, 1.6])
        take(self.owner, layer.pk, lot.pk, self.grams(most), press=make.press())

    def put_back(self):
        taken = self.any(Take)
        give_back(self.owner, taken.layer_id, taken.movement.lot_id, self.grams(0.4), press=make.press())

    def take_eyes(self):
        take_thing(self.owner, self.any(MakingThing, making__finished_at=None).pk, press=make.press())

    def put_eyes_back(self):
        give_thing_back(self.owner, self.any(MakingThing, making__finished_at=None).pk, press=make.press())

    def enough(self):
        has_enough(self.owner, self.any(PieceLayer, piece__making__finished_at=None).pk)

    def not_enough(self):
        takes_more(self.owner, self.any(PieceLayer, piece__making__finished_at=None).pk)

    def finish(self):
        making = self.any(Making, finished_at=None)
        became, weighs = self.chance.choice(UNWEIGHED), self.grams(60)
        finish_making(self.owner, making.pk, press=make.press(), unweighed=became, figure_g=weighs)

    def stand_in(self):
        need, new = self.any(Need, project__state=PLANNED, item__kind=FIBRE), self.any(Item, kind=FIBRE)
        count, how = self.chance.randrange(1, 5), self.chance.random()
        if need.seen and how < 0.4:
            lay_thinly(self.owner, need.project_id, need.item_id, new.pk, count=count)
        else:
            use_instead(self.owner, need.project_id, need.item_id, new.pk, seen=need.seen, count=count)

    def answer_back(self):
        take_answer_back(self.owner, self.any(StandIn, taken_back_at=None).pk)

    def resize(self):
        resize_figure(self.owner, self.any(Figure).pk, self.chance.choice([0.9, 1.1]))

    def add_part(self):
        figure = self.any(Figure)
        if newest_version(figure).parts.count() < 8:
            add_part(
                self.owner, figure.pk, self.chance.choice(["ear", "leg", "ball", "eye"]), self.chance.uniform(4, 20)
            )

    def remove_part(self):
        figure = self.any(Figure)
        parts = parts_of(newest_version(figure))
        if len(parts) > 3:
            remove_part(self.owner, figure.pk, parts[-1].key)

    def choose(self):
        figure = self.any(Figure)
        slot = self.chance.choice(list(newest_version(figure).slots.all()))
        choose_fibre(self.owner, figure.pk, slot.name, self.any(Item, kind=FIBRE).pk)


def said(studio) -> None:
    """Each thing that two rooms say, said alike."""
    for lot in Lot.objects.of(studio):
        moved = Movement.objects.filter(lot=lot).aggregate(total=Sum("amount"))["total"] or 0
        assert lot.on_hand == moved >= 0, "a bag holds what its book says"
        promised = Promise.objects.filter(lot=lot).aggregate(total=Sum("amount"))["total"] or 0
        assert promised <= lot.on_hand + NEAR, "no more is promised of a bag than it holds"
    needs = open_needs(studio)
    for need in needs:
        assert need.p10 <= need.p50 + NEAR and need.p50 <= need.p90 + NEAR
        assert need.promised <= need.left + NEAR, "no more is promised to a need than is left of it"
    tides = {tide.item.pk: sum(need.left for need in tide.needs) for tide in tide_lines(studio)}
    for item in {need.item_id for need in needs}:
        assert tides.get(item, 0) == sum(need.left for need in needs if need.item_id == item), (
            "restock knows what is left"
        )
    for project in (
        Project.objects.of(studio).filter(state=PLANNED).select_related("studio", "colourway__version__figure")
    ):
        before = rows_of(project)
        with transaction.atomic():
            write_needs(project)
            after = rows_of(project)
            transaction.set_rollback(True)
        for key in before | after:
            now, then = before.get(key, (D(0),) * 3), after.get(key, (D(0),) * 3)
            assert all(abs(one - two) <= NEAR for one, two in zip(now, then, strict=True)), (key, now, then)


def rows_of(project) -> dict:
    rows = Need.objects.filter(project=project).values_list("item__name", "seen", *RANGE)
    return {(name, seen): tuple(values) for name, seen, *values in rows}


@pytest.mark.parametrize("walk", range(3))
def test_whatever_is_done_all_rooms_agree(client, owner, django_capture_on_commit_callbacks, walk):
    chance = random.Random(f"{os.environ[SEED]} {walk}")
    for name in "ab":
        make.lot(owner, name, "300", srgb=chance.choice(COLOURS))
    for name in ("Hare", "Vole"):
        figure = figure_with(client, name, ("body", "50"), ("head", "25"), ("eye", "4"))
        for slot in newest_version(figure).slots.all():
            choose_fibre(owner, figure.pk, slot.name, chance.choice(list(Item.objects.filter(kind=FIBRE))).pk)
    walker, done = Walk(owner, chance), []
    presses = [name for name in vars(Walk) if not name.startswith("_") and name not in ("any", "grams", "owner")]
    walker.plan()
    for _ in range(ALL_OF_THEM // 3 if os.environ.get(ALL) == "all" else FEW // 3):
        press = chance.choice([*presses, "begin", "take", "finish", "plan", "more_or_fewer", "stand_in"])
        try:
            with django_capture_on_commit_callbacks(execute=True), transaction.atomic():
                getattr(walker, press)()
            done.append(press)
        except (Refusal, Short):
            done.append(f"({press})")
        except AttributeError as fault:
            if "NoneType" not in str(fault):
                raise
        try:
            said(Studio.objects.get(pk=owner.studio_id))
        except AssertionError as fault:
            raise AssertionError(f"seed {os.environ[SEED]}, walk {walk}, after {' '.join(done)}: {fault}") from None
    for address in ("", "plan/", "restock/", "bench/", "stash/", "deeds/"):
        assert words(get(client, address))
