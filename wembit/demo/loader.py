"""Loads Saltgrass, made relative to the day on which it is loaded, through the same actions that makers use."""

from __future__ import annotations

import datetime as dt
import os
import random
import uuid
from decimal import Decimal
from pathlib import Path
from typing import TYPE_CHECKING, Any

from django.core.files.base import ContentFile
from django.db import connection

from wembit.core.body_plans.plan import stored
from wembit.core.pose.placing import place
from wembit.web import clock
from wembit.web.bench.actions.begin_making import begin_making
from wembit.web.bench.actions.break_needle import break_needle
from wembit.web.bench.actions.correct_minutes import correct_minutes
from wembit.web.bench.actions.count_needles import count_needles
from wembit.web.bench.actions.finish_making import AS_PLANNED, finish_making
from wembit.web.bench.actions.give_back import give_back
from wembit.web.bench.actions.let_dry import let_dry
from wembit.web.bench.actions.mark_piece import mark_piece
from wembit.web.bench.actions.put_aside import put_aside
from wembit.web.bench.actions.take import take
from wembit.web.bench.actions.take_thing import take_thing
from wembit.web.bench.models import Making
from wembit.web.bench.part_clock import lines_of, planned_minutes
from wembit.web.bench.queries import making_of, sources
from wembit.web.bench.siblings import later_of
from wembit.web.figures.actions.add_reference import add_reference
from wembit.web.figures.models import PART_FIELDS, Choice, Colourway, Figure, Layer, Part, Slot, Version
from wembit.web.figures.queries import parts_of
from wembit.web.figures.to_core.seating import placed_part
from wembit.web.plan.actions.keep_away import go_away
from wembit.web.plan.actions.keep_hours import keep_hours
from wembit.web.plan.actions.plan_project import plan_project
from wembit.web.restock.actions.keep_offer import keep_offer
from wembit.web.restock.actions.put_on_list import put_on_list
from wembit.web.restock.actions.receive_order import receive_order
from wembit.web.restock.actions.send_order import send_order
from wembit.web.restock.models import Offer, Supplier
from wembit.web.stash.actions.describe_item import describe_item
from wembit.web.stash.actions.keep_reminder import keep_reminder
from wembit.web.stash.actions.lay_in import lay_in
from wembit.web.stash.actions.pull import pull
from wembit.web.stash.actions.receive import Parcel
from wembit.web.stash.actions.recount import recount
from wembit.web.stash.ledger import Press
from wembit.web.stash.models import Entry, Item, Lot
from wembit.web.studio.actions.found_studio import found_studio
from wembit.web.studio.models import MAKER, Member, Studio, User

from .blends import card_blends
from .card_picture import card_picture
from .class_evenings import teach
from .figures import FIGURES, DemoFigure
from .shelf import BAGS, SELLERS, SUPPLIES, Bag
from .sketch import sketch

if TYPE_CHECKING:
    from wembit.web.plan.models import Project

PASSWORD = "saltgrass-felt"
LEAST = Decimal("0.01")
OWN = {"kind": "own", "sale": "yes", "whom": "", "credit": "", "safety": ""}
MIRAS = {"mon": 0.0, "tue": 2.0, "wed": 0.0, "thu": 2.5, "fri": 0.0, "sat": 3.5, "sun": 3.0}  # hours at the bench
TOVES = {"mon": 2.0, "tue": 0.0, "wed": 0.0, "thu": 0.0, "fri": 2.0, "sat": 2.5, "sun": 0.0}
BROKE = {"Otter, upright": "triangle 38", "Hare, crouched": "triangle 38", "Hedgehog": "triangle 38"}  # at their bodies
LEAST_ASIDE = 0.2  # grams that are worth laying aside
SCHOOL = {"wool": "broken up", "needles": "bundle", "amounts": "small", "twins": "halves", "attach": "loose end",
          "eyes": "last", "trim": "zone", "surface": "smooth", "strays": "stab", "fingers": "guards"}  # fmt: skip


def load() -> Studio:
    """Build the demo studio: some 400 entries over four months. What was begun is emptied again where it fails."""
    if passed := os.environ.get("WEMBIT_DAYS_FILE", ""):
        Path(passed).write_text("0")  # in the demo days can be passed
    try:
        return _Builder().build()
    except BaseException:
        wipe()
        raise


def wipe() -> None:
    """Empty every table of the product. The ledger refuses to be deleted line by line, so its tables are emptied whole."""
    tables = [model._meta.db_table for model in (Studio, User, Member, Entry, Item, Lot, Figure, Supplier)]
    with connection.cursor() as cursor:
        cursor.execute(f"TRUNCATE {', '.join(tables)} CASCADE")


class _Builder:
    """Keeps the people, the day and the chance of one loading."""

    def __init__(self) -> None:
        self.chance = random.Random(20)
        self.pace = random.Random(11)
        self.mira = User.objects.create_user("mira", password=PASSWORD, first_name="Mira")
        self.tove = User.objects.create_user("tove", password=PASSWORD, first_name="Tove")
        self.studio = found_studio("Saltgrass", self.mira, timezone="Europe/London", currency="EUR")
        self.owner = Member.objects.get(studio=self.studio, user=self.mira)
        self.owner.pinch_g = Decimal("0.04")
        self.owner.save()
        self.maker = Member.objects.create(studio=self.studio, user=self.tove, role=MAKER)
        self.today = clock.today(self.studio)
        self.now = clock.now()
        self.items: dict[str, Item] = {}
        self.ways: dict[str, Colourway] = {}

    def build(self) -> Studio:
        self.stocktake()
        self.suppliers()
        for figure in FIGURES:
            self.ways[figure.name] = load_figure(self.studio, figure, self.items)
        self.sketches()
        self.keeping()
        self.studio.habits = {"school": SCHOOL, "hour_rate": "14", "mark_up": "15"}
        self.studio.backed_up_at = self.now  # so that the pictures of Today begin without that caution
        self.studio.save(update_fields=["habits", "backed_up_at"])
        keep_hours(self.owner, {self.owner.pk: MIRAS, self.maker.pk: TOVES})
        self.past()
        self.present()
        return self.studio

    def sketches(self) -> None:
        """The heron's own sketch, to be drawn over."""
        figure = self.ways["Heron"].version.figure
        pieces = place([placed_part(part) for part in parts_of(self.ways["Heron"].version)])
        image = ContentFile(
            sketch(pieces), name=f"{self.studio.pk}/{uuid.UUID(int=self.chance.getrandbits(128)).hex}.jpg"
        )
        add_reference(self.owner, figure.pk, image, words="from the bird hide, the line is 100 mm")

    def keeping(self) -> None:
        """A picture with a card in it, what the scale has learnt of two wools, and looks that come round."""
        bag = Lot.objects.get(studio=self.studio, item=self.items["kelp"])
        name = f"{self.studio.pk}/{uuid.UUID(int=self.chance.getrandbits(128)).hex}.jpg"
        bag.photo = ContentFile(card_picture(bag.srgb), name=name)
        bag.save(update_fields=["photo"])
        for called, fields in (("moss", {"linear_g_m": "14", "pinch_g": "0.035"}), ("fawn", {"palm_g": "0.6"})):
            describe_item(self.owner, self.items[called].pk, **{key: Decimal(value) for key, value in fields.items()})
        keep_reminder(self.owner, "moths in the fleeces", self.today + dt.timedelta(9), every_days=42, drawer="E1")
        keep_reminder(self.owner, "damp behind the shelf", self.today + dt.timedelta(30), every_days=90)

    def day(self, ago: int, hour: int = 10) -> Any:
        moment = min(clock.at(self.studio, self.today - dt.timedelta(ago), hour), self.now)
        return clock.as_of(moment)

    def press(self) -> Press:
        return Press(f"demo-{uuid.UUID(int=self.chance.getrandbits(128))}")

    def stocktake(self) -> None:
        for nth, bag in enumerate(sorted(BAGS, key=lambda bag: -bag.days_ago)):
            with self.day(bag.days_ago, 9):
                self._lay_in(bag, nth)
        for supply in SUPPLIES:
            with self.day(129, 15):
                said = {"kind": "notion", "name": supply.name, "unit": supply.unit, "notion": supply.notion,
                        "size_mm": supply.size_mm and Decimal(str(supply.size_mm))}  # fmt: skip
                entry = lay_in(
                    self.owner, said, Decimal(str(supply.amount)), press=self.press(), srgb=supply.srgb,
                    drawer=supply.drawer,
                )  # fmt: skip
                item = self._minimum(entry, supply.minimum)
                if supply.told:
                    item.told = dict(supply.told)
                    item.save(update_fields=["told"])

    def _lay_in(self, bag: Bag, nth: int) -> None:
        entry = lay_in(
            self.owner,
            {"kind": "fibre", "name": bag.name, "unit": "g", "breed": bag.breed, "form": bag.form},
            None if bag.grams is None else Decimal(str(bag.grams)),
            press=self.press(),
            srgb=bag.srgb,
            drawer=bag.drawer,
            dye_lot=bag.dye_lot,
        )
        item = self._minimum(entry, bag.minimum)
        self.items.setdefault(bag.name, item)
        one_after_another = clock.now() + dt.timedelta(seconds=nth)
        Lot.objects.filter(movements__entry=entry).update(made_at=one_after_another)

    def _minimum(self, entry: Entry, minimum: float) -> Item:
        item = entry.movements.all()[0].lot.item
        if minimum:
            item.minimum = Decimal(str(minimum))
            item.save(update_fields=["minimum"])
        return item

    def suppliers(self) -> None:
        for seller in SELLERS:
            supplier = Supplier.objects.create(
                studio=self.studio,
                name=seller.name,
                lead_days=seller.lead_days,
                postage=Decimal(seller.postage),
                takes_files=seller is SELLERS[0],
            )
            for name, packs in seller.packs.items():
                item = self.items[name].pk if name in self.items else self._notion(name)
                for pack, price in packs:
                    keep_offer(self.owner, supplier.pk, item, Decimal(str(pack)), Decimal(price))

    def past(self) -> None:
        """Finished work of the last months, a delivery, a class every week, odd pulls, recounts."""
        self._make("Otter, upright", 2, "Midsummer stall", begin=112, maker=self.owner)
        self._make("Snail", 6, "Harbour fair", begin=96, maker=self.maker)
        self._make("Hare, crouched", 1, "For the vet's window", begin=84, maker=self.owner)
        self._deliver({"soot": 1, "chalk": 1}, sent=80, came=73)
        self._make("Hedgehog", 2, "Library raffle", begin=66, maker=self.maker)
        self._make("Octopus", 1, "Pier café", begin=58, maker=self.owner)
        self._make("Lighthouse", 1, "Keeper's farewell", begin=44, maker=self.owner)
        card_blends(self.maker, self.items)
        for ago, name, grams in [(100, "reed", 4), (77, "mudflat", 11.5), (52, "olive", 6.2), (47, "sea", 3.4),
                                 (33, "silver curl", 8), (21, "gull", 5.5), (15, "dusk", 2.75), (9, "kelp", 7)]:  # fmt: skip
            with self.day(ago, 16):
                pull(self.maker, self._lot(name).pk, Decimal(str(grams)), press=self.press())
        teach(self.maker, self.items, self.today)
        for ago, name, share in [(61, "fawn", "0.97"), (30, "core", "0.985"), (18, "oat", "1.02")]:
            with self.day(ago, 18):
                lot = self._lot(name)
                recount(self.owner, lot.pk, (lot.on_hand * Decimal(share)).quantize(Decimal("0.1")), press=self.press())

    def present(self) -> None:
        """Five projects around today, two makings in hand, an order on the way."""
        with self.day(24):
            heron = self._plan("Heron", 1, "Bird hide, a promise", due=-1, start=-15, for_whom="order")
        with self.day(12):
            crab = self._plan("Hermit crab", 2, "Shop window", due=9, start=-4)
        with self.day(6):
            self._plan("Otter, upright", 4, "Winter market", due=18, start=9, for_whom="market", sizes=[1, 1.1, 1, 0.9])
            self._plan("Snail", 10, "Snail race", due=25, start=13, for_whom="class")
            self._plan("Hare, crouched", 3, "Spring orders", due=46, start=30, for_whom="order")
        go_away(self.owner, self.maker.pk, self.today + dt.timedelta(20), self.today + dt.timedelta(26))
        in_hand = self._begin(heron, 14, self.owner, share=0.75)
        count_needles(self.owner, in_hand.pk, 2)
        self._glued(in_hand)
        self._put_aside(self._begin(crab, 4, self.maker, share=0.4))
        with self.day(2):
            put_on_list(self.owner, {self._offer("rust", 25): 1, self._offer("core", 500): 1})
            order = self.items["rust"].offers.all()[0].supplier.orders.get(state="draft")
            send_order(self.owner, order.pk)

    def _put_aside(self, making: Making) -> None:
        """Wool lies ready for a later piece."""
        line = making_of(self.studio, making.pk)
        for _, layer in line.sequence:
            ready = {key for key, _ in ([] if layer.done else later_of(line, layer))}
            later = [each for _, each in line.sequence if each.layer.pk in ready and each.grams.p50 > LEAST_ASIDE]
            source = next(iter(sources(layer.layer)), None)
            if later and source:
                grams = Decimal(str(round(0.9 * later[0].grams.p50, 2)))
                put_aside(
                    self.maker, layer.layer.pk, later[0].layer.pk, source.lot.pk, grams, press=Press("demo-aside")
                )
                break

    def _glued(self, making: Making) -> None:
        """Glue dries."""
        glued = next((each.step.id for each in lines_of(making) if each.step.wait_hours), None)
        if glued:
            with self.day(0, 8):
                let_dry(self.owner, making.pk, glued)

    def _plan(self, figure: str, count: int, name: str, *, due: int, start: int, **more: Any) -> Any:
        day = self.today
        return plan_project(
            self.owner, self.ways[figure].pk, name=name, count=count, due=day + dt.timedelta(due),
            start=day + dt.timedelta(start), **more,
        )  # fmt: skip

    def _make(self, figure: str, count: int, name: str, *, begin: int, maker: Member) -> None:
        """A project planned, made and finished in the past."""
        with self.day(begin + 10):
            project = self._plan(figure, count, name, due=-(begin - 12), start=-begin)
        for number in range(count):
            making = self._begin(project, begin - 2 * number, maker, share=1.0)
            self._minutes(maker, making.pk)
            if number == 0 and figure in BROKE:
                with self.day(begin - 1, 18):
                    piece = making.pieces.get(part_key="body")
                    break_needle(maker, piece.pk, self._notion(BROKE[figure]), found=True, press=self.press())
            with self.day(begin - 2 * number - 1, 19):
                finish_making(maker, making.pk, press=self.press(), unweighed=AS_PLANNED)

    def _notion(self, name: str) -> uuid.UUID:
        return Item.objects.get(studio=self.studio, name=name).pk

    def _begin(self, project: Project, ago: int, maker: Member, share: float) -> Any:
        """Begin a making and take the wool for a share of its pieces, a little more or less than planned."""
        with self.day(ago):
            making = begin_making(maker, project.pk)
        line = making_of(self.studio, making.pk)
        pieces = line.pieces[: max(1, round(len(line.pieces) * share))]
        with self.day(ago, 10):
            for thing in line.things:
                if thing.thing.item.notion == "wire":  # it is cut before anything is wound
                    take_thing(maker, thing.thing.pk, press=self.press())
        for index, piece in enumerate(pieces):
            with self.day(max(0, ago - index // 6), 10 + index % 6):
                for layer in piece.layers:
                    self._take(maker, layer)
                if piece.layers:
                    mark_piece(maker, piece.piece.pk, "fitted" if share == 1.0 else "made")
        return making

    def _minutes(self, maker: Member, making_id: uuid.UUID) -> None:
        """What each part took: nobody stabs as long as the rule says."""
        making = Making.objects.select_related("colourway__version__studio").get(pk=making_id)
        lines = lines_of(making)
        for piece in {piece.part_key: piece for piece in making.pieces.all()}.values():
            minutes = planned_minutes(lines, piece.part_key) * self.pace.lognormvariate(0.08, 0.22)
            if minutes >= 1:
                correct_minutes(maker, piece.pk, round(minutes))

    def _take(self, maker: Member, each: Any) -> None:
        wanted = Decimal(str(round(each.grams.p50 * self.chance.lognormvariate(0.02, 0.16), 2)))
        wanted = max(wanted, LEAST)
        source = next((source for source in sources(each.layer) if source.lot.on_hand >= wanted), None)
        if source is None:
            return
        take(maker, each.layer.pk, source.lot.pk, wanted, press=self.press())
        if wanted > 4 and self.chance.random() < 0.3:
            give_back(maker, each.layer.pk, source.lot.pk, Decimal("0.35"), press=self.press())

    def _deliver(self, packs: dict[str, int], *, sent: int, came: int) -> None:
        with self.day(sent):
            put_on_list(self.owner, {self._offer(name, None): count for name, count in packs.items()})
            order = Supplier.objects.get(studio=self.studio, name=SELLERS[0].name).orders.get(state="draft")
            send_order(self.owner, order.pk)
        with self.day(came, 14):
            parcels = [Parcel(line.item_id, line.amount, f"D-{came}") for line in order.lines.all()]
            receive_order(self.owner, order.pk, parcels, press=self.press())
            Lot.objects.filter(studio=self.studio, dye_lot=f"D-{came}").update(made_at=clock.now())

    def _offer(self, name: str, pack: int | None) -> Any:
        offers = Offer.objects.filter(item=self.items[name], supplier__name=SELLERS[0].name)
        return (offers.get(pack=pack) if pack else offers.order_by("pack")[1]).pk

    def _lot(self, name: str) -> Lot:
        return self.items[name].lots.order_by("-on_hand")[0]


def load_figure(studio: Studio, figure: DemoFigure, items: dict[str, Item]) -> Colourway:
    """A demo figure as version 1 with its colourway; seats are turned from the standing pose to what they sit on."""
    made = Figure.objects.create(studio=studio, name=figure.name, story=figure.story, origin=OWN)
    fittings = [{"id": f"demo{n}", "part": "", "size_mm": None, **each} for n, each in enumerate(figure.fittings)]
    version = Version.objects.create(studio=studio, figure=made, notions=fittings)
    slots = {
        name: Slot.objects.create(studio=studio, version=version, name=name, position=position)
        for position, name in enumerate(figure.slots)
    }
    for position, given in enumerate(stored(figure.parts)):
        fields = {name: given[name] for name in PART_FIELDS if name in given}
        row = Part.objects.create(studio=studio, version=version, position=position, **fields)
        for order, layer in enumerate(given["layers"]):
            over = slots[layer["over"]] if layer["over"] else None
            Layer.objects.create(
                studio=studio, part=row, slot=slots[layer["slot"]], over=over, role=layer["role"], rule=layer["rule"],
                position=order,
            )  # fmt: skip
    made_ways = []
    for position, (way, other) in enumerate({figure.way: {}, **figure.ways}.items()):
        colourway = Colourway.objects.create(studio=studio, version=version, name=way, position=position)
        for name, fibre in {**figure.slots, **other}.items():
            Choice.objects.create(studio=studio, colourway=colourway, slot=slots[name], item=items[fibre])
        made_ways.append(colourway)
    return made_ways[0]
