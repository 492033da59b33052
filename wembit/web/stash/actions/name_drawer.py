"""Give a drawer its name."""

from __future__ import annotations

from wembit.web.stash.models import Drawer
from wembit.web.studio.models import Member


def drawer_called(member: Member, name: str) -> Drawer | None:
    """The studio's drawer of that name, made where there is none; None without a name."""
    name = " ".join(name.split())[:40]
    if not name:
        return None
    drawer = Drawer.objects.of(member.studio).filter(name__iexact=name).first()
    return drawer or Drawer.objects.create(studio=member.studio, name=name)
