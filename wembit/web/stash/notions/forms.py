"""What is told of a notion: the size of an eye or a wire, the gauge and blade of a needle, the outline of a cutter."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from wembit.core.craft.armature import COATINGS, METALS
from wembit.core.craft.cutter_shapes import CUTTERS, SECTIONS
from wembit.core.craft.notions import PADS
from wembit.web.fields import ChosenField, NumberField, TextField, length_field
from wembit.web.forms import StudioForm

if TYPE_CHECKING:
    from wembit.web.request import Request
    from wembit.web.stash.models import Item

GAUGE = "Write the gauge as on the packet, like 36, 38 or 40."


class NotionForm(StudioForm):
    """Only the fields that tell this kind of notion."""

    def __init__(self, request: Request, item: Item) -> None:
        super().__init__(request)
        self.item = item
        if item.notion == "needle":
            self.fields["gauge"] = NumberField(10, 60, words=GAUGE, required=False)
            self.fields["section"] = ChosenField(SECTIONS, "Choose how the blade looks across.")
            self.fields["mark"] = TextField(30)
            self.fields["holder"] = TextField(30)
        else:
            self.fields["size"] = length_field(request.studio, required=False, most=1000, least=0.01)
        if item.notion == "wire":
            self.fields["metal"] = ChosenField(METALS, "Choose the metal from the list.")
            self.fields["coating"] = ChosenField(COATINGS, "Choose what it is covered with from the list.")
        if item.notion == "pad":
            self.fields["wools"] = ChosenField(PADS, "Choose which wools it is for.")
        if item.notion in ("cutter", "stencil"):
            self.fields["outline"] = ChosenField(CUTTERS, "Choose an outline of the list.")

    def told(self) -> dict[str, Any]:
        """Size in mm, and what tells this notion from others."""
        given = dict(self.cleaned_data)
        size = given.pop("size", self.item.size_mm)
        told = {**self.item.told, **given}
        return {"size_mm": size, "told": {name: value for name, value in told.items() if value}}
