"""The forms of a page as a browser sends them: every field with the value that it shows."""

from __future__ import annotations

from dataclasses import dataclass, field
from html.parser import HTMLParser


@dataclass
class PageForm:
    """`fields`: what is sent when nothing is changed; `options`: what each list offers; `typed`: fields to write in."""

    action: str
    fields: dict[str, str] = field(default_factory=dict)
    options: dict[str, list[str]] = field(default_factory=dict)
    typed: list[str] = field(default_factory=list)
    buttons: list[tuple[str, str]] = field(default_factory=list)

    def send(self, client, **changes):
        """The press; `changes` are what the maker has written or chosen."""
        assert set(changes) <= {*self.fields, *self.typed, *self.options, *(name for name, _ in self.buttons)}, changes
        return client.post(self.action, {**self.fields, **changes})


class _Reader(HTMLParser):
    def __init__(self):
        super().__init__()
        self.forms: list[PageForm] = []
        self.form: PageForm | None = None
        self.select = self.area = ""

    def handle_starttag(self, tag, attrs):
        given = dict(attrs)
        if tag == "form":
            self.form = PageForm(given.get("action") or "")
            self.forms.append(self.form)
        elif self.form is None:
            return
        elif tag == "input":
            self._input(given)
        elif tag == "button" and given.get("name"):
            self.form.buttons.append((given["name"], given.get("value") or ""))
        elif tag == "select":
            self.select = given["name"]
            self.form.options[self.select] = []
        elif tag == "option" and self.select:
            value = given.get("value") or ""
            self.form.options[self.select].append(value)
            if "selected" in given or self.select not in self.form.fields:
                self.form.fields[self.select] = value
        elif tag == "textarea":
            self.area = given["name"]
            self.form.fields[self.area] = ""
            self.form.typed.append(self.area)

    def _input(self, given):
        name, kind = given.get("name"), given.get("type") or "text"
        if not name or name == "csrfmiddlewaretoken" or kind in ("file", "submit"):
            return
        if kind in ("checkbox", "radio"):
            self.form.options.setdefault(name, []).append(given.get("value") or "on")
            if "checked" in given:
                self.form.fields[name] = given.get("value") or "on"
            return
        self.form.fields[name] = given.get("value") or ""
        if kind != "hidden":
            self.form.typed.append(name)

    def handle_data(self, data):
        if self.area:
            self.form.fields[self.area] += data

    def handle_endtag(self, tag):
        if tag == "form":
            self.form = None
        elif tag == "select":
            self.select = ""
        elif tag == "textarea":
            self.area = ""


def forms_of(page: str) -> list[PageForm]:
    """All forms of a page, in order."""
    reader = _Reader()
    reader.feed(page)
    return reader.forms


def form_at(page: str, action_ends: str) -> PageForm:
    """The form whose address ends so."""
    return next(form for form in forms_of(page) if form.action.endswith(action_ends))


def keep_hours(client, hours="2", whose=None, **days):
    """The hours of every maker, or of one, by the plan's own form; what it does not change stays as it stands there."""
    page = client.get(client.base + "plan/").content.decode()
    form, ends = form_at(page, "plan/hours/"), str(whose.pk) if whose else ""
    return form.send(client, **{name: days.get(name[:3], hours) for name in form.typed if name.endswith(ends)})
