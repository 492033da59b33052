"""Every action asks for the member's role itself, before it looks at anything else, whoever calls it."""

import datetime as dt
import importlib
import inspect
import pkgutil
import uuid
from decimal import Decimal

import pytest
from django.core.exceptions import PermissionDenied

import wembit.web
from tests.web import factories as make
from wembit.web.figures.models import Version
from wembit.web.studio.models import MAKER, VIEWER, Member

FOR_ALL = {  # what a viewer may do, or what is part of another action, which asks
    "drawer_called": "part of another action",
    "item_like": "part of another action",
    "scrap_bag": "part of another action",
    "work_on": "part of another action",
    "moved_over": "part of stand_in and of lay_under, which ask",
    "called": "gives a name",
    "what_the_newest_changes": "looks on",
    "show_pinch": "keeps what is her own",
    "make_feed": "gives what she may read",
    "drop_feed": "keeps what is her own",
    "stop_letter": "keeps what is her own",
    "wish_for_letter": "gives what she may read",
}
OWNERS = {"change_role", "remove_member", "make_join_link", "make_password_link", "withdraw_link", "set_up"}
SOME = {
    "str": "x", "float": 1.0, "int": 1, "list[str]": ["x"], "Sequence[str]": ["x"], "bool": True, "UUID": uuid.uuid4(),
    "Decimal": Decimal(1), "dict": {}, "dt.date": dt.date(2026, 11, 28),
}  # fmt: skip


def _actions():
    for module in pkgutil.walk_packages(wembit.web.__path__, "wembit.web."):
        if ".actions." not in module.name:
            continue
        found = importlib.import_module(module.name)
        for name, action in inspect.getmembers(found, inspect.isfunction):
            real = inspect.unwrap(action)
            if real.__module__ != module.name or name.startswith("_"):
                continue
            first = next(iter(inspect.signature(real).parameters.values()), None)
            if first is not None and first.annotation in ("Member", Member):
                yield name, action


ACTIONS = dict(_actions())


def test_the_actions_are_found():
    assert len(ACTIONS) > 100
    assert set(ACTIONS) >= set(FOR_ALL) | OWNERS, set(FOR_ALL) | OWNERS - set(ACTIONS)


@pytest.mark.sampled("who may not", 20)
@pytest.mark.parametrize("name", sorted(set(ACTIONS) - set(FOR_ALL)))
def test_an_action_refuses_who_may_not(owner, studio, name):
    who = make.member(studio, MAKER if name in OWNERS else VIEWER, "una")
    given, named = [], {}
    for parameter in list(inspect.signature(ACTIONS[name]).parameters.values())[1:]:
        if parameter.default is not inspect.Parameter.empty or parameter.kind is inspect.Parameter.VAR_KEYWORD:
            continue
        value = SOME.get(str(parameter.annotation))
        if parameter.kind is inspect.Parameter.KEYWORD_ONLY:
            named[parameter.name] = value
        else:
            given.append(value)
    figures = Version.objects.count()
    with pytest.raises(PermissionDenied, match="owner"):
        ACTIONS[name](who, *given, **named)
    assert Version.objects.count() == figures
