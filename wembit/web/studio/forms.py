"""What the forms of the door, of the members and of the settings say."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from wembit.web.fields import ChosenField, PatternField, TextField, tick_field, weight_field
from wembit.web.forms import PageForm, StudioForm

from .models import ROLES, Studio, known_timezone

if TYPE_CHECKING:
    from wembit.web.request import Request


class CurrencyField(PatternField):
    """Three letters."""

    def __init__(self) -> None:
        super().__init__("^[A-Za-z]{3}$", "Write three letters, like EUR.", required=True)

    def clean(self, value: Any) -> str:
        found: str = super().clean(value)
        return found.upper()


class ZoneField(TextField):
    """A time zone that the system knows."""

    def __init__(self) -> None:
        super().__init__(60, words="Choose a time zone.", required=True)
        self.validators.append(known_timezone)


class PasswordField(TextField):
    """A password as it was typed, spaces and all."""

    def __init__(self, *, required: bool = True) -> None:
        super().__init__(200, words="Write your password.", required=required)
        self.strip = False


class SignInForm(PageForm):
    username = TextField(150, words="Write the name you sign in with.", required=True)
    password = PasswordField()
    next = TextField(2000)


class FirstForm(PageForm):
    username = TextField(150, words="Write the name you sign in with.", required=True)
    password = PasswordField()
    studio_name = TextField(80, words="Give the studio a name.", required=True)
    name = TextField(80)
    timezone = ZoneField()
    currency = CurrencyField()


class LinkForm(PageForm):
    """Who follows a link: a new member, or one with a new password."""

    username = TextField(150)
    name = TextField(80)
    password = PasswordField(required=False)


def choices_of(setting: str) -> list[Any]:
    """What a setting of the studio can be: pairs of value and words."""
    return list(getattr(Studio._meta.get_field(setting), "choices", None) or ())


class SettingsForm(StudioForm):
    name = TextField(80, words="Give the studio a name.", required=True)
    timezone = ZoneField()
    currency = CurrencyField()
    anyway = tick_field()  # another currency, in which the numbers stay

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        for name in ("decimal_mark", "weight_unit", "length_unit"):
            self.fields[name] = ChosenField(choices_of(name), "Choose one of the list.", required=True)


class PinchForm(StudioForm):
    """What ten pinches of this member weigh, and whether the keys of one letter are on."""

    keys_on = tick_field()

    def __init__(self, request: Request) -> None:
        super().__init__(request)
        self.fields["ten"] = weight_field(request.member, required=False, most=50)


class NewPasswordForm(StudioForm):
    old = PasswordField()
    new = PasswordField()


class EndForm(StudioForm):
    mark = TextField(24)


class SureForm(StudioForm):
    sure = tick_field()


class RoleForm(StudioForm):
    role = ChosenField(ROLES, "Choose what the member may do.", required=True)
