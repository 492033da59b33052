"""Addresses of what things cost."""

from django.urls import path

from . import views

app_name = "costs"
urlpatterns = [
    path("", views.shelf, name="home"),
    path("rates/", views.rates, name="rates"),
    path("figure/<uuid:figure_id>/", views.figure, name="figure"),
]
