"""The clock of a part begins with a taking, and ends when all its pieces are made or another part is in hand."""

from __future__ import annotations

from contextlib import suppress
from uuid import UUID

from django.db import IntegrityError, transaction

from wembit.web import clock
from wembit.web.bench.models import DONE, Piece, Spell
from wembit.web.bench.queries import open_spell
from wembit.web.stash.models import Entry
from wembit.web.studio.models import Member


def work_on(member: Member, piece: Piece, entry: Entry) -> None:
    """This maker works at the part of a piece since that entry took wool for it, and at nothing else; within the caller's
    transaction. The spell stands while its entry does.
    """
    if not hasattr(entry, "written"):  # the same press again
        return
    spell, stands = open_spell(member)
    if spell and (spell.making_id, spell.part_key) == (piece.making_id, piece.part_key) and stands:
        return
    if spell:
        spell.ended_at = max(spell.begun_at, entry.happened_at)
        spell.save(update_fields=["ended_at"])
    with suppress(IntegrityError), transaction.atomic():  # another page of this maker was first
        Spell.objects.create(
            studio=member.studio, making_id=piece.making_id, part_key=piece.part_key, maker=member, entry=entry,
            begun_at=entry.happened_at,
        )  # fmt: skip


def stop_where_made(making_id: UUID, part_key: str) -> None:
    """The clock of a part stops when all its pieces are made."""
    if not Piece.objects.filter(making=making_id, part_key=part_key).exclude(state__in=DONE).exists():
        Spell.objects.filter(making=making_id, part_key=part_key, ended_at=None).update(ended_at=clock.now())
