"""Change the order of work: say a step otherwise, move it, leave it out, add one."""

from __future__ import annotations

from collections.abc import Callable
from uuid import UUID, uuid4

from wembit.web.errors import Refusal
from wembit.web.figures.editing.door import editing
from wembit.web.figures.models import Version
from wembit.web.limits import STEP_MINUTES, STEPS
from wembit.web.studio.models import Member


def _changed(member: Member, figure_id: UUID, change: Callable[[dict], None]) -> Version:
    with editing(member, figure_id, "the order of work") as edit:
        order = {"first": [], "said": {}, "off": [], "own": {}, **edit.version.order}
        change(order)
        edit.version.order = order
        edit.version.save(update_fields=["order"])
    return edit.version


def say_step(member: Member, figure_id: UUID, step_id: str, *, title: str, words: str, minutes: float) -> Version:
    """Keep a step's own title, words and minutes. Raises `Refusal`, `Http404`."""
    title, words = " ".join(title.split())[:80], words.strip()[:600]
    if not title:
        raise Refusal("Say what is done in this step.", "title")
    if not 0 <= minutes <= STEP_MINUTES:
        raise Refusal(f"Write between 0 and {STEP_MINUTES:g} minutes.", "minutes")

    def change(order: dict) -> None:
        said = {"title": title, "words": words, "minutes": minutes}
        if step_id in order["own"]:
            order["own"] = {**order["own"], step_id: said}
        else:
            order["said"] = {**order["said"], step_id: said}

    return _changed(member, figure_id, change)


def move_step(member: Member, figure_id: UUID, step_id: str, ids: list[str], by: int) -> Version:
    """Move a step earlier or later among `ids`, the order as it is shown. Raises `Http404`."""

    def change(order: dict) -> None:
        if step_id in ids:
            at = ids.index(step_id)
            moved = [*ids[:at], *ids[at + 1 :]]
            moved.insert(max(0, min(len(moved), at + by)), step_id)
            order["first"] = moved

    return _changed(member, figure_id, change)


def leave_out_step(member: Member, figure_id: UUID, step_id: str) -> Version:
    """Leave a step out; one of the maker's own goes for good. Raises `Http404`."""

    def change(order: dict) -> None:
        if step_id in order["own"]:
            order["own"] = {key: each for key, each in order["own"].items() if key != step_id}
        elif step_id not in order["off"]:
            order["off"] = [*order["off"], step_id]

    return _changed(member, figure_id, change)


def take_in_step(member: Member, figure_id: UUID, step_id: str) -> Version:
    """Take a step in again that was left out. Raises `Http404`."""

    def change(order: dict) -> None:
        order["off"] = [key for key in order["off"] if key != step_id]

    return _changed(member, figure_id, change)


def add_step(member: Member, figure_id: UUID, after: str, ids: list[str], *, title: str) -> tuple[Version, str]:
    """A step of one's own behind another. Raises `Refusal`, `Http404`."""
    title = " ".join(title.split())[:80]
    if not title:
        raise Refusal("Say what is done in this step.", "new_title")
    if len(ids) >= STEPS:
        raise Refusal(f"At most {STEPS} steps.", "new_title")
    key = f"own:{uuid4().hex[:12]}"

    def change(order: dict) -> None:
        order["own"] = {**order["own"], key: {"title": title, "words": "", "minutes": 5.0}}
        at = ids.index(after) + 1 if after in ids else len(ids)
        order["first"] = [*ids[:at], key, *ids[at:]]

    return _changed(member, figure_id, change), key
