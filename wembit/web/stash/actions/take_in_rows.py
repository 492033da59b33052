"""Take in the next rows of a stash file."""

from __future__ import annotations

import datetime as dt
from collections import Counter
from decimal import Decimal
from uuid import UUID

from django.db import transaction
from django.shortcuts import get_object_or_404

from wembit.core.tables import Table
from wembit.web import clock
from wembit.web.errors import Refusal
from wembit.web.stash.file_rows.ledger_file import is_ledger, ledger_fates
from wembit.web.stash.file_rows.stash_file import CHANGED, NEW, NEW_LINE, REFUSED, TableRow, fates, tells_breed
from wembit.web.stash.ledger import EntryDraft, Line, Press
from wembit.web.stash.looks import tell_looks
from wembit.web.stash.models import OPENING, RECOUNT, Drawer, Item, Lot, StashFile
from wembit.web.stash.swatch import swatches
from wembit.web.studio.models import MAKER, Member

from .describe_item import describe_item
from .lay_in import called, item_like
from .name_drawer import drawer_called

TAKE_IN = "taken in"
ROWS, LINES = 2000, 250  # at once: bags, and lines of the ledger, each of which is an entry of its own
ITEM = ("kind", "name", "unit", "breed", "own_breed_id", "form", "notion", "size_mm")
REPORTED = 5000  # refused rows that are kept for the report


@transaction.atomic
def take_in_rows(member: Member, file_id: UUID, table: Table) -> StashFile:
    """The next rows of the file. Bags come in one entry: new ones are laid in, weights found are recounts, what else is said
    of a bag is kept. Lines of the ledger are entries of their own. A row that came in before changes nothing.

    Raises `Http404`.
    """
    member.must_be(MAKER)
    file = get_object_or_404(StashFile.objects.of(member.studio).locked(), pk=file_id)
    if file.done >= file.total:
        return file
    if is_ledger(table):
        rows = ledger_fates(member.studio, table, file.done, LINES)
        _write(member, rows)
    else:
        rows = fates(member.studio, table, file.done, ROWS)
        _keep(member, rows, f"file-{file.pk}-{file.done}")
    counts = Counter(file.counts) + Counter(row.fate for row in rows)
    refused = [(row.number, row.words) for row in rows if row.fate == REFUSED]
    file.counts, file.refused = dict(counts), (file.refused + refused)[:REPORTED]
    file.done += len(rows)
    file.finished_at = clock.now() if file.done >= file.total else None
    file.save(update_fields=["counts", "refused", "done", "finished_at"])
    return file


def _write(member: Member, rows: list[TableRow]) -> None:
    """Write new lines of the ledger; what the book does not allow is refused."""
    for row in rows:
        if row.fate != NEW_LINE or row.lot is None:
            continue
        given = row.given
        try:
            with transaction.atomic():
                press = Press(row.mark, given["happened_at"])
                draft = EntryDraft.start(member, press, TAKE_IN, (row.mark,), [row.lot.item_id])
                draft.commit([Line(row.lot.pk, given["kind"], given["amount"])], note=given["note"])
        except Refusal as fault:
            row.fate, row.words = REFUSED, fault.message


def _keep(member: Member, rows: list[TableRow], key: str) -> None:
    work = [row for row in rows if row.fate in (NEW, CHANGED)]
    if not work:
        return
    items = _items(member, [row for row in work if row.fate == NEW])
    drawers = {name: drawer_called(member, name or "") for name in {row.given["drawer"] for row in work}}
    touched = {row.lot.item_id for row in work if row.lot} | {item.pk for item in items}
    for row in work:
        if row.fate == CHANGED:
            touched |= _renamed(member, row)
    draft = EntryDraft.start(member, Press(key), TAKE_IN, (key,), touched)
    if draft.repeated:
        return
    looks = swatches([row.given["srgb"] for row in work])
    new: list[Lot] = []
    lines: list[Line] = []
    for row, look in zip(work, looks, strict=True):
        if row.fate == CHANGED:
            lines += _said_anew(row, look, drawers[row.given["drawer"]], draft.happened_at)
            continue
        lot = Lot(
            studio=member.studio, item=items[len(new)], drawer=drawers[row.given["drawer"]],
            dye_lot=row.given["dye_lot"] or "", weighed=row.given["amount"] is not None, came_as=row.mark, **look,
        )  # fmt: skip
        new.append(lot)
        lines.append(Line(lot.pk, OPENING, row.given["amount"] or Decimal(0)))
    Lot.objects.bulk_create(new)
    tell_looks(member.studio, touched)
    draft.commit(lines, note="from a file")


def _items(member: Member, rows: list[TableRow]) -> list[Item]:
    """The item of each new row, made where there is none like it."""
    known = {_key({name: getattr(item, name) for name in ITEM}): item for item in Item.objects.of(member.studio)}
    found = []
    for row in rows:
        fields = {name: row.given[name] for name in ITEM if name in row.given}
        if not fields["name"].strip():
            fields["name"] = called(member, fields, row.given["srgb"])
        key = _key(fields)
        if key not in known:
            known[key] = item_like(member, fields)
        found.append(known[key])
    return found


def _key(fields: dict) -> tuple:
    """What tells items apart, as text."""
    size = fields.get("size_mm")
    name = " ".join(fields["name"].lower().split())
    others = (fields.get(each) or "" for each in ("kind", "unit", "form", "notion"))
    breed = fields.get("own_breed_id") or fields.get("breed") or ""
    return (name, *others, breed, "" if size is None else f"{size.normalize():f}")


def _renamed(member: Member, row: TableRow) -> set[UUID]:
    """The bag under the name and the breed that the row gives it: its item is renamed where it is that item's only bag, else
    the bag goes to another item. Returns the ids of the items.
    """
    lot, given = row.lot, row.given
    assert lot is not None, "a bag that is said anew is here"
    item = lot.item
    told = {"name": given["name"].strip() or item.name}
    if tells_breed(item, given):
        told |= {"breed": given["breed"], "own_breed_id": given.get("own_breed_id")}
    if all(str(getattr(item, name) or "").lower() == str(value or "").lower() for name, value in told.items()):
        return set()
    fields = {name: getattr(item, name) for name in ITEM} | told
    alone = not Lot.objects.of(member.studio).on_shelf().filter(item=item).exclude(pk=lot.pk).exists()
    like = Item.objects.of(member.studio).filter(
        name__iexact=told["name"],
        **{name: value for name, value in fields.items() if name not in ("name", "linear_g_m")},
    )
    if alone and not like.exclude(pk=item.pk).exists():
        describe_item(member, item.pk, **told)
        lot.item.refresh_from_db()
        return {item.pk}
    lot.item = item_like(member, fields)
    lot.save(update_fields=["item"])
    return {item.pk, lot.item_id}


def _said_anew(row: TableRow, look: dict, drawer: Drawer | None, moment: dt.datetime) -> list[Line]:
    """Keep what a row says of a bag that is here; its weight as the line of a recount."""
    lot, given = row.lot, row.given
    assert lot is not None, "a bag that is said anew is here"
    if given["srgb"] and given["srgb"] != lot.srgb:
        for name, value in look.items():
            setattr(lot, name, value)
    fields = [*look, "drawer", "dye_lot"]
    if given["drawer"] is not None:
        lot.drawer = drawer
    if given["dye_lot"] is not None:
        lot.dye_lot = given["dye_lot"]
    lines = []
    if given["amount"] is not None and (given["amount"] != lot.on_hand or not lot.weighed):
        lines.append(Line(lot.pk, RECOUNT, given["amount"] - lot.on_hand))
        lot.weighed, lot.recounted_at = True, moment
        fields += ["weighed", "recounted_at"]
    lot.save(update_fields=fields)
    return lines
