"""Where a member is signed in, and ending that."""

from __future__ import annotations

from typing import TYPE_CHECKING

from django.contrib import messages
from django.contrib.auth import login, update_session_auth_hash
from django.shortcuts import redirect, render
from django.views.decorators.http import require_GET, require_POST

from wembit.web.responses import refused

from .actions.change_password import end_other_sessions
from .forms import EndForm
from .sessions import sign_out_at, signed_in_at
from .shared_tablet import HANDS, keep_hand

if TYPE_CHECKING:
    from django.http import HttpResponse

    from wembit.web.request import Request

    from .models import User


@require_GET
def signed_in_page(request: Request) -> HttpResponse:
    devices = signed_in_at(request, request.member.user)
    return render(request, "studio/signed_in.html", {"devices": devices, "others": [d for d in devices if not d.here]})


@require_POST
def end(request: Request) -> HttpResponse:
    """End one session of the member in hand, or all but this one."""
    form = EndForm(request)
    form.is_valid()
    mark = form.cleaned_data.get("mark", "")
    if mark and sign_out_at(request.member.user, mark):
        messages.success(request, "Signed out there.")
    elif mark:
        refused(request, {"": "That device is signed out already."})
    else:
        hold_again(request, end_other_sessions(request.member.user))
        messages.success(request, "You are signed in here alone.")
    return redirect("studio:signed_in", studio=request.studio.slug)


def hold_again(request: Request, user: User) -> None:
    """This session stays hers after her password or her round of sessions changed; the others end by it."""
    hands = request.session.get(HANDS, {})
    if request.user.pk == user.pk:
        update_session_auth_hash(request, user)
    elif request.user.pk is None:
        login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    request.session[HANDS] = hands
    keep_hand(request, user)
