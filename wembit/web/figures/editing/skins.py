"""Patches that grow with the skin that they lie on."""

from __future__ import annotations

from collections.abc import Sequence

from wembit.core.contract.requests import SHAPE
from wembit.core.grams.relations import WOOL
from wembit.core.grams.scaling import on_another_skin
from wembit.core.shape.solids import solid
from wembit.web.figures.models import Part


class Skins:
    """The shapes of parts and the rules on them, as they were when last asked."""

    def __init__(self, parts: Sequence[Part]) -> None:
        self.shapes = {part.key: part.shape for part in parts}
        self.rules = {layer.pk: layer.rule for part in parts for layer in part.layers.all()}

    def grow(self, parts: Sequence[Part]) -> bool:
        """Keep the patches of parts whose shape is another now, unless they were changed, too; whether there were any. What
        follows its wool keeps them: they are a share of it.
        """
        grown = False
        for part in parts:
            old = self.shapes.get(part.key)
            if old is None or old == part.shape or any(relation["size"] == WOOL for relation in part.relations):
                continue
            before, after = (solid(SHAPE({**shape}, "shape")).area for shape in (old, part.shape))
            for layer in part.layers.all():
                rule = on_another_skin(layer.rule, before, after)
                if layer.rule == self.rules.get(layer.pk) and rule != layer.rule:
                    layer.rule = self.rules[layer.pk] = rule
                    layer.save(update_fields=["rule"])
                    grown = True
            self.shapes[part.key] = part.shape
        return grown
