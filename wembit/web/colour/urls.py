"""Addresses of the colours."""

from django.urls import path

from . import card_views, palette_views, picture_views, tell_views, views

app_name = "colour"
urlpatterns = [
    path("", views.home, name="home"),
    path("tell/<uuid:lot_id>/", tell_views.tell, name="tell"),
    path("picture/", picture_views.picture_colours, name="picture"),
    path("palette/", palette_views.palette, name="palette"),
    path("palette/in/", palette_views.palette_in, name="palette_in"),
    path("shade-card/", palette_views.shade_card, name="shade_card"),
    path("habits/", card_views.habits, name="habits"),
    path("card/", card_views.card, name="card"),
    path("tuft/<path:recipe>/", card_views.drawn_tuft, name="tuft"),
]
