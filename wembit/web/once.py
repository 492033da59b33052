"""A form that makes something makes it once, however often its press arrives."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable
from functools import wraps
from typing import TYPE_CHECKING, Any

from django.db import IntegrityError, transaction
from django.shortcuts import redirect

from wembit.web import clock
from wembit.web.studio.models import DonePress

if TYPE_CHECKING:
    from django.http import HttpResponse

    from wembit.web.request import Request

KEPT = dt.timedelta(days=2)


def once(view: Callable[..., HttpResponse]) -> Callable[..., HttpResponse]:
    """The view runs once for the key that its form carries; pressed again it leads to where the first press led. A press that
    was refused may be pressed again; so may one without a key.
    """

    @wraps(view)
    def pressed(request: Request, *args: Any, **named: Any) -> HttpResponse:
        key = request.POST.get("key", "")[:64] if request.method == "POST" else ""
        if not key or "\0" in key:
            return view(request, *args, **named)
        with transaction.atomic():
            DonePress.objects.of(request.studio).filter(made_at__lt=clock.now() - KEPT).delete()
            try:
                with transaction.atomic():
                    done = DonePress.objects.create(studio=request.studio, key=key, made_at=clock.now())
            except IntegrityError:
                request.saved_nothing = True
                return redirect(DonePress.objects.of(request.studio).get(key=key).led_to)
            response = view(request, *args, **named)
            if response.status_code == 302 and not getattr(request, "saved_nothing", False):
                done.led_to = response.headers["Location"]
                done.save(update_fields=["led_to"])
            else:
                transaction.set_rollback(True)
        return response

    return pressed
