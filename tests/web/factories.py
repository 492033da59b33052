"""One small maker of data for each model; everything has a sensible default."""

from __future__ import annotations

import datetime as dt
import uuid
from decimal import Decimal

from tests.web.built_once import built, in_fibre
from wembit.web import clock
from wembit.web.figures.actions.add_part import add_part
from wembit.web.figures.actions.make_figure import make_figure
from wembit.web.figures.queries import colourway_of, newest_version
from wembit.web.plan.actions.plan_project import plan_project
from wembit.web.restock.models import Offer, Supplier
from wembit.web.stash.actions.lay_in import lay_in
from wembit.web.stash.ledger import Press
from wembit.web.stash.models import Lot
from wembit.web.studio.actions.found_studio import found_studio
from wembit.web.studio.models import MAKER, Member, User

PASSWORD = "felting needle 38"


def press(**more) -> Press:
    return Press(str(uuid.uuid4()), **more)


def user(name="mira") -> User:
    return User.objects.create_user(name, password=PASSWORD, first_name=name.title())


def studio_owner(name="Saltgrass", who="mira") -> Member:
    """A studio's owner, with the studio."""
    owner = user(who)
    studio = found_studio(name, owner, timezone="Europe/London")
    return Member.objects.get(studio=studio, user=owner)


def member(studio, role=MAKER, who="tove") -> Member:
    return Member.objects.create(studio=studio, user=user(who), role=role)


def lot(owner: Member, name="moss", grams="50", *, form="tops", srgb="#6f7d43", drawer="A1", **more) -> Lot:
    """A bag on the shelf, laid in by an entry."""
    entry = lay_in(
        owner,
        {"kind": "fibre", "name": name, "unit": "g", "breed": "merino", "form": form},
        None if grams is None else Decimal(grams),
        press=press(),
        srgb=srgb,
        drawer=drawer,
        **more,
    )
    return entry.movements.get().lot


def notion_lot(owner: Member, name="black eyes", amount="20", notion="eyes", unit="pc") -> Lot:
    item = {"kind": "notion", "name": name, "unit": unit, "notion": notion, "size_mm": Decimal(4)}
    amount = None if amount is None else Decimal(amount)
    return lay_in(owner, item, amount, press=press()).movements.get().lot


def figure(owner: Member, name="Pebble", length=30.0, fibre: Lot | None = None):
    """A figure of one ball right through in one fibre, planned at about 1.5 to 2 g."""

    def begun():
        made = make_figure(owner, name)
        add_part(owner, made.pk, "ball", length)
        return made

    made = built(owner, name, ("ball", length), begun)
    in_fibre(made, "main", (fibre or lot(owner)).item_id)
    return made


def project(owner: Member, made=None, *, count=1, days=28, start=None, name="Market"):
    made = made or figure(owner)
    today = clock.today(owner.studio)
    way = colourway_of(newest_version(made))
    start = today + dt.timedelta(start) if start is not None else None
    return plan_project(owner, way.pk, name=name, count=count, due=today + dt.timedelta(days), start=start)


def offer(owner: Member, item, pack="50", price="4.90", lead=6, supplier="Marram Wool Shed") -> Offer:
    seller, _ = Supplier.objects.get_or_create(
        studio=owner.studio, name=supplier, defaults={"lead_days": lead, "postage": Decimal("3.20")}
    )
    return Offer.objects.create(
        studio=owner.studio, supplier=seller, item=item, pack=Decimal(pack), price=Decimal(price)
    )
