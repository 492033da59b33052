"""Every field of every part and layer of the eight demo figures is changed by the page's own form."""

import pytest
from django.db import transaction

from tests.conftest import some
from tests.web import factories as make
from tests.web.forms import PageForm, forms_of
from wembit.demo.figures import FIGURES
from wembit.demo.loader import load_figure
from wembit.web.figures.models import Layer, Part
from wembit.web.figures.queries import newest_version, parts_of

LEFT_ALONE = {"key", "mended", "habit"}
SMALLER = 0.97


def demo_figure(owner, name):
    """One of the eight figures, each of its colours on the shelf."""
    demo = next(figure for figure in FIGURES if figure.name == name)
    wools = {*demo.slots.values(), *(fibre for way in demo.ways.values() for fibre in way.values())}
    return load_figure(
        owner.studio, demo, {fibre: make.lot(owner, fibre).item for fibre in sorted(wools)}
    ).version.figure


def another(form: PageForm, name: str) -> str | None:
    """Another value that a maker may give the field; None where the field offers nothing else."""
    now = form.fields.get(name, "")
    if name in form.options:
        return next((value for value in form.options[name] if value not in (now, "")), None)
    if name in ("name", "slot"):
        return f"{now} x"
    if name.endswith("srgb"):
        return "#c08030"
    if not now:
        return "80" if name == "visible" else "5" if name == "loose_end_mm" else None
    if name == "yaw" and form.fields["pitch"] in ("90", "-90"):
        return None  # upright it has no direction
    number = float(now.replace("−", "-"))
    if name in ("t", "share", "part", "from", "to", "lid"):  # shares in per cent
        return f"{number - 1:g}" if number > 1 else f"{number + 1:g}"
    if name in ("count", "spots", "pieces"):
        return f"{number + 1:g}"
    if name in ("angle", "pitch", "yaw", "gaze", "sink", "centre_mm", "shank_mm"):
        return f"{number + 1:g}"
    return f"{number * (1 / SMALLER if name == 'pulled_mm' else SMALLER):.3f}"


def pressed(client, form: PageForm, name: str, value: str, seen) -> tuple[int, object, str]:
    """The status of a press, what `seen` shows of it, and what the page said; nothing of it stays."""
    with transaction.atomic():
        answer = form.send(client, **{name: value})
        after = seen()
        transaction.set_rollback(True)
    return answer.status_code, after, answer.content.decode() if answer.status_code == 422 else ""


def faults(page: str) -> str:
    return " ".join(piece.split("<")[0] for piece in page.split('role="alert">')[1:])


def stored(version) -> list:
    rows = list(Part.objects.filter(version=version).order_by("position").values())
    return rows + list(Layer.objects.filter(part__version=version).order_by("part__position", "position").values())


def form_of(client, address: str, ends: str) -> PageForm:
    page = client.get(address)
    assert page.status_code == 200
    return next(form for form in forms_of(page.content.decode()) if form.action.endswith(ends))


@pytest.mark.sampled("figures whose fields are changed", 3)
@pytest.mark.parametrize("name", [figure.name for figure in FIGURES])
def test_every_field_of_every_part_can_be_changed(client, owner, name):
    figure = demo_figure(owner, name)
    version = newest_version(figure)
    broken = []
    for part in some(parts_of(version), 1, f"parts of {name}"):
        address = f"{client.base}figures/{figure.pk}/?part={part.key}"
        form = form_of(client, address, f"/part/{part.key}/")
        fields = [fromkey for fromkey in dict.fromkeys([*form.typed, *form.options]) if fromkey not in LEFT_ALONE]
        assert any(field.endswith("_mm") or field in ("bead", "t", "count") for field in fields)
        before = stored(version)
        with transaction.atomic():
            assert form.send(client).status_code == 302
            assert stored(version) == before, f"{part.key}: what was only sent back has changed something"
            transaction.set_rollback(True)
        for field in fields:
            value = another(form, field)
            if value is None:
                continue
            status, after, page = pressed(client, form, field, value, lambda: stored(version))
            if status != 302:
                broken.append((part.key, field, form.fields.get(field), value, faults(page)))
            elif after == before and not part.relations:
                broken.append((part.key, field, form.fields.get(field), value, "nothing has changed"))
    assert not broken, "\n".join(map(str, broken))


@pytest.mark.sampled("figures whose fields are changed", 3)
@pytest.mark.parametrize("name", [figure.name for figure in FIGURES])
def test_every_field_of_every_layer_can_be_changed(client, owner, name):
    figure = demo_figure(owner, name)
    version = newest_version(figure)
    broken = []
    layers = [(part, n, layer) for part in parts_of(version) for n, layer in enumerate(part.layers.all())]
    for part, position, layer in some(layers, 3, f"layers of {name}"):
        address = f"{client.base}figures/{figure.pk}/?part={part.key}&layer={position}"
        form = form_of(client, address, f"/part/{part.key}/layer/{position}/")
        before = stored(version)
        with transaction.atomic():
            assert form.send(client).status_code == 302
            assert stored(version) == before, f"{part.key} {layer.role}: only sent back, and changed"
            transaction.set_rollback(True)
        for each in [fromkey for fromkey in dict.fromkeys([*form.typed, *form.options]) if fromkey not in LEFT_ALONE]:
            value = another(form, each)
            if value is None:
                continue
            status, after, page = pressed(client, form, each, value, lambda: stored(version))
            alone = each == "share" and layer.role == "core" and form.fields["share"] == "100"
            if status != 302:
                broken.append((part.key, layer.role, each, form.fields.get(each), value, faults(page)))
            elif after == before and not alone:  # a core that is alone fills its part
                broken.append((part.key, layer.role, each, form.fields.get(each), value, "nothing has changed"))
    assert not broken, "\n".join(map(str, broken))
