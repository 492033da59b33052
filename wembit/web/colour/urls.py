"""Addresses of the colours."""

from django.urls import path

from . import card_views, tell_views, views

app_name = "colour"
urlpatterns = [
    path("", views.home, name="home"),
    path("tell/<uuid:lot_id>/", tell_views.tell, name="tell"),
    path("picture/", tell_views.picture_colours, name="picture"),
    path("card/", card_views.card, name="card"),
    path("tuft/<path:recipe>/", card_views.drawn_tuft, name="tuft"),
]
