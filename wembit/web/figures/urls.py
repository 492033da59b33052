"""Addresses of the figures."""

from django.urls import path

from . import views

app_name = "figures"
urlpatterns = [
    path("", views.home, name="home"),
    path("new/", views.new, name="new"),
    path("<uuid:figure_id>/", views.figure, name="figure"),
    path("<uuid:figure_id>/describe/", views.describe, name="describe"),
    path("<uuid:figure_id>/copy/", views.copy, name="copy"),
    path("<uuid:figure_id>/fibre/", views.fibre, name="fibre"),
    path("<uuid:figure_id>/part/", views.new_part, name="new_part"),
    path("<uuid:figure_id>/part/<slug:key>/", views.part, name="part"),
    path("<uuid:figure_id>/part/<slug:key>/layers/", views.layers, name="layers"),
    path("<uuid:figure_id>/part/<slug:key>/drop/", views.drop_part, name="drop_part"),
]
