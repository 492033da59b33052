"""Addresses: signing in, and the places of a studio under `/s/<studio>/`."""

from __future__ import annotations

from django.urls import URLPattern, URLResolver, include, path

from wembit.web import views
from wembit.web.letters import views as letter_views
from wembit.web.restock import date_views
from wembit.web.studio import sign_in_views
from wembit.web.today import views as today_views

places: list[URLPattern | URLResolver] = [
    path("", today_views.today, name="today"),
    path("", include("wembit.web.studio.urls")),
    path("figures/", include("wembit.web.figures.urls")),
    path("plan/what-if/", include("wembit.web.what_if.urls")),
    path("plan/", include("wembit.web.plan.urls")),
    path("stash/", include("wembit.web.stash.urls")),
    path("colour/", include("wembit.web.colour.urls")),
    path("bench/", include("wembit.web.bench.urls")),
    path("costs/", include("wembit.web.costs.urls")),
    path("restock/", include("wembit.web.restock.urls")),
    path("letters/", include("wembit.web.letters.urls")),
    path("understood/", views.understood, name="understood"),
    path("find/", views.find, name="find"),
    path("strip/", views.strip, name="strip"),
    path("undo/", views.undo_last, name="undo"),
    path("again/", views.do_again, name="again"),
    path("deeds/", views.deeds, name="deeds"),
    path("deeds/<uuid:deed_id>/back/", views.deed_back, name="deed_back"),
    path("picture/<path:name>", views.picture, name="picture"),
]

urlpatterns = [
    path("", sign_in_views.door, name="door"),
    path("sign-in/", sign_in_views.sign_in, name="sign_in"),
    path("sign-out/", sign_in_views.sign_out, name="sign_out"),
    path("first/", sign_in_views.first_visit, name="first_visit"),
    path("link/<str:token>/", sign_in_views.use_link, name="use_link"),
    path("days/<str:token>.ics", date_views.feed, name="feed"),
    path("letter/<str:token>/", letter_views.agreed, name="agree"),
    path("health/", views.health, name="health"),
    path("favicon.ico", views.favicon),
    path("s/<slug:studio>/", include(places)),
]

handler403 = "wembit.web.views.forbidden"
handler404 = "wembit.web.views.missing"
handler500 = "wembit.web.views.broken"
