"""Addresses of the colours."""

from django.urls import path

from wembit.web.colour.map import carding_views, views
from wembit.web.colour.measure import views as tell_views
from wembit.web.colour.palettes import picture_views
from wembit.web.colour.palettes import views as palette_views

app_name = "colour"
urlpatterns = [
    path("", views.home, name="home"),
    path("touched/", views.touched, name="touched"),
    path("tell/<uuid:lot_id>/", tell_views.tell, name="tell"),
    path("picture/", picture_views.picture_colours, name="picture"),
    path("palette/", palette_views.palette, name="palette"),
    path("palette/in/", palette_views.palette_in, name="palette_in"),
    path("shade-card/", palette_views.shade_card, name="shade_card"),
    path("habits/", carding_views.habits, name="habits"),
    path("card/", carding_views.card, name="card"),
    path("tuft/<path:recipe>/", carding_views.drawn_tuft, name="tuft"),
]
