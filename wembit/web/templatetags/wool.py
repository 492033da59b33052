"""How templates write numbers, dates and the keys of forms. Built in, so that no template has to load it."""

from __future__ import annotations

import datetime as dt
import uuid
from typing import TYPE_CHECKING

from django import template
from django.utils.html import format_html

from wembit.web import clock, numbers
from wembit.web.dates import spoken
from wembit.web.stash.swatch import UNTOLD

if TYPE_CHECKING:
    from typing import Any

    from wembit.web.stash.models import Item, Lot
    from wembit.web.studio.models import Studio

register = template.Library()
BAR = 110  # px


def _joined(pair: tuple[str, str]) -> str:
    return format_html('<span class="num">{}</span>{}{}', pair[0], numbers.NARROW, pair[1])


@register.filter
def g(value: Any, studio: Studio) -> Any:
    """Grams with their unit."""
    return _joined(numbers.grams(value or 0, studio))


@register.filter
def bare_g(value: Any, studio: Studio) -> str:
    """A weight in the studio's unit, without the unit: the scale of a column."""
    return numbers.grams(value or 0, studio)[0]


@register.filter
def or_untold(srgb: str) -> str:
    """A colour, or what stands for it where nobody has told it."""
    return srgb or UNTOLD


@register.filter
def strand(value: Any, studio: Studio) -> Any:
    """A length of wool, in mm, as a hand measures it."""
    return _joined(numbers.strand(value or 0, studio))


@register.filter
def de(value: Any, studio: Studio) -> str:
    """A number without a unit to one decimal, as a difference in colour is."""
    return f"{float(value or 0):.1f}".replace(".", studio.decimal_mark)


@register.filter
def span(grams: Any, studio: Studio) -> Any:
    """The 10–90 % range of something with `p10` and `p90`."""
    return _joined(numbers.span(grams.p10, grams.p90, studio))


@register.simple_tag
def loads(carding: tuple[int, float]) -> str:
    """Loads of hand carders and their minutes, in words."""
    count, minutes = carding
    return f"{count} load{'' if count == 1 else 's'} of hand carders, about {minutes:.0f} min"


@register.simple_tag
def between(grams: Any, most: float) -> Any:
    """A range with `p10`, `p50` and `p90` as a bar with its middle marked, on a scale up to `most`."""
    low, middle, high = (round(BAR * getattr(grams, name) / (most or 1), 1) for name in ("p10", "p50", "p90"))
    return format_html(
        '<svg class="between" width="{0}" height="12" viewBox="0 0 {0} 12" aria-hidden="true">'
        '<path d="M0 11H{0}" stroke="#9b9b9b"/><path d="M{1} 3V9M{1} 6H{3}M{3} 3V9" stroke="#1b1b1b" fill="none"/>'
        '<circle cx="{2}" cy="6" r="2.5" fill="#1b1b1b"/></svg>',
        BAR, low, middle, high,
    )  # fmt: skip


@register.filter
def mm(value: Any, studio: Studio) -> Any:
    """A length with its unit."""
    return _joined(numbers.length(value or 0, studio))


@register.filter
def mmtext(value: Any, studio: Studio) -> str:
    """A length without markup."""
    return numbers.NARROW.join(numbers.length(value or 0, studio))


@register.simple_tag(takes_context=True)
def amount(context: dict[str, Any], value: Any, unit: str = "g") -> Any:
    """An amount of an item, in its unit."""
    return _joined(numbers.amount(value or 0, unit, context["studio"]))


@register.simple_tag(takes_context=True)
def amount_text(context: dict[str, Any], value: Any, unit: str = "g") -> str:
    """An amount with its unit as plain text."""
    return numbers.NARROW.join(numbers.amount(value or 0, unit, context["studio"]))


@register.simple_tag(takes_context=True)
def held(context: dict[str, Any], value: Any, unit: str, unweighed: int, word: str = "") -> str:
    """What is there of an item; bags that nobody has weighed are named, not counted as nothing."""
    return numbers.held(value or 0, unit, unweighed, context["studio"], word)


@register.simple_tag(takes_context=True, name="exact")
def exact_amount(context: dict[str, Any], value: Any, unit: str = "g") -> Any:
    """An amount of a bag as its book keeps it."""
    return _joined(numbers.exact(value or 0, unit, context["studio"]))


@register.simple_tag
def unknown(unit: str) -> str:
    """What is said of an amount that nobody knows."""
    return numbers.unknown(unit)


@register.simple_tag
def find_out(unit: str) -> str:
    """What is to be done first about an amount that nobody knows."""
    return numbers.find_out(unit)


@register.simple_tag(takes_context=True)
def take(context: dict[str, Any], value: Any) -> Any:
    """Grams to take, small ones as a pinch."""
    if numbers.is_pinch(value):
        return format_html("a pinch ({})", _joined(numbers.grams(value, context["studio"])))
    return _joined(numbers.grams(value, context["studio"]))


@register.simple_tag(takes_context=True)
def money(context: dict[str, Any], value: Any) -> str:
    """A sum in the studio's currency."""
    studio = context["studio"]
    text = f"{float(value):.2f}".replace(".", studio.decimal_mark)
    return format_html('<span class="num">{}</span>{}{}', text, numbers.NARROW, studio.currency)


@register.filter
def figure(value: Any, studio: Studio) -> Any:
    """A bare number in the studio's decimal mark, as a field shows it."""
    return "" if value is None or value == "" else numbers.plain(value, 3, studio.decimal_mark)


@register.filter
def grams_field(value: Any, studio: Studio) -> Any:
    """A weight as a field shows it."""
    return "" if value is None or value == "" else numbers.field_grams(value, studio)


@register.filter
def mm_field(value: Any, studio: Studio) -> Any:
    """A length as a field shows it."""
    return "" if value is None or value == "" else numbers.field_mm(value, studio)


@register.simple_tag(takes_context=True)
def day(context: dict[str, Any], date: Any) -> str:
    """A date as a person says it; exact on hover and for screen readers."""
    if date is None:
        return ""
    if isinstance(date, dt.datetime):
        date = date.astimezone(clock.zone(context["studio"])).date()
    return format_html(
        '<time datetime="{}" title="{}">{}</time>',
        date.isoformat(),
        f"{date:%A %-d %B %Y}",
        spoken(date, clock.today(context["studio"])),
    )


@register.filter
def hour(moment: dt.datetime) -> str:
    """The hour and minute of a moment, by its own clock."""
    return f"{moment:%H:%M}"


@register.filter
def hour_of(moment: dt.datetime, studio: Studio) -> str:
    """The hour and minute of a moment in the studio's time."""
    return hour(moment.astimezone(clock.zone(studio)))


@register.simple_tag(takes_context=True)
def day_text(context: dict[str, Any], date: Any) -> Any:
    """A date as a person says it, as plain text."""
    return spoken(date, clock.today(context["studio"]))


@register.simple_tag(takes_context=True)
def press(context: dict[str, Any]) -> str:
    """The key of one press, drawn into a form: the same press repeated counts once; and whose hand the page shows."""
    member = context.get("member")
    return format_html(
        '<input type="hidden" name="key" value="{}"><input type="hidden" name="hand" value="{}">',
        uuid.uuid4(), member.pk if member else "",
    )  # fmt: skip


@register.filter
def get(mapping: Any, key: str) -> Any:
    """What stands under a key; nothing where there is none."""
    return mapping.get(key) if hasattr(mapping, "get") else None


@register.simple_tag(takes_context=True)
def field(context: dict[str, Any], name: str, default: str = "") -> Any:
    """What was entered in this field when the form came back, else `default`."""
    kept = context.get("kept")
    return kept.get(name, default) if kept else default


@register.filter
def picture_name(image: Any) -> Any:
    """The last part of a stored picture's name, as its address wants it."""
    return image.name.rpartition("/")[2] if image else ""


@register.inclusion_tag("_measure.html", takes_context=True)
def measure(
    context: dict[str, Any],
    name: str,
    label: str,
    kind: str = "weight",
    value: str = "",
    unit: str = "",
    hint: str = "",
    size: str = "",
    item: Item | None = None,
    lot: Lot | None = None,
) -> dict:
    """A field for a length, a weight or a count, with the line that shows what was understood."""
    studio = context["studio"]
    kept = context.get("kept")
    own = studio.length_unit if kind == "length" else "" if kind == "count" else studio.weight_unit
    return {
        "name": name,
        "label": label,
        "kind": kind,
        "value": kept.get(name, value) if kept else value,
        "unit": unit or own,
        "hint": hint,
        "size": size,
        "about": "".join(f"&{what}={thing.pk}" for what, thing in (("item", item), ("lot", lot)) if thing),
        "studio": studio,
        "fault": (context.get("faults") or {}).get(name, ""),
    }


@register.inclusion_tag("_text.html", takes_context=True)
def text(
    context: dict[str, Any],
    name: str,
    label: str,
    value: str = "",
    hint: str = "",
    kind: str = "text",
    **attributes: Any,
) -> dict:
    """A field of one line."""
    kept = context.get("kept")
    return {
        "name": name,
        "label": label,
        "kind": kind,
        "value": kept.get(name, value) if kept and kind != "password" else value,
        "hint": hint,
        "attributes": {key.replace("_", "-"): each for key, each in attributes.items()},
        "fault": (context.get("faults") or {}).get(name, ""),
    }


@register.inclusion_tag("_choose.html", takes_context=True)
def choose(
    context: dict[str, Any], name: str, label: str, options: Any, value: str = "", empty: str = "", shared: str = ""
) -> dict:
    """A list to choose from: pairs of value and words. A shared one holds what is chosen; the rest comes from the page's
    `shared_list` of that name when the field is opened.
    """
    kept = context.get("kept")
    chosen = str(kept.get(name, value) if kept else value)
    shared = "" if context.get("lists") else shared
    return {
        "name": name,
        "label": label,
        "options": [(str(key), words) for key, words in options if not shared or str(key) == chosen],
        "value": chosen,
        "empty": empty,
        "shared": shared,
        "fault": (context.get("faults") or {}).get(name, ""),
    }


@register.inclusion_tag("_shared_list.html", takes_context=True)
def shared_list(context: dict[str, Any], name: str, options: Any) -> dict:
    """What several fields of a page can be given, written once: pairs of value and words, or options as markup."""
    return {"name": name, "options": options, "is_markup": isinstance(options, str), "lists": context.get("lists")}


@register.simple_tag(takes_context=True)
def fault(context: dict[str, Any], name: str = "") -> Any:
    """What is to be changed in a field, or (without a name) in the form as a whole."""
    words = (context.get("faults") or {}).get(name, "")
    return format_html('<p class="fault" role="alert">{}</p>', words) if words else ""


@register.filter
def way(points: Any) -> Any:
    """Points as the data of an SVG path."""
    return "M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in points)


@register.filter
def tick(point: Any) -> str:
    """A short upright stroke at a point, as path data."""
    return f"M{point[0]:.2f} {point[1] - 2:.2f}v4"


@register.filter
def add_mm(value: Any, by: Any) -> str:
    """A length and another one."""
    return f"{float(value) + float(by):.2f}"


@register.filter
def hours(minutes: Any) -> Any:
    """Minutes as a person says them: 45 min, 3 h 20."""
    whole = round(float(minutes))
    return f"{whole} min" if whole < 60 else f"{whole // 60} h {whole % 60:02d}"


@register.filter
def numbered(numbers: Any) -> str:
    """Numbers of makings in words: the first, 1 to 3, 4 and 6."""
    found = sorted(numbers)
    if len(found) > 2 and found[-1] - found[0] == len(found) - 1:
        return f"{found[0]} to {found[-1]}"
    words = [str(number) for number in found]
    return f"{', '.join(words[:-1])} and {words[-1]}" if len(words) > 1 else "".join(words)
