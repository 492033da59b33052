"""Addresses of letters."""

from django.urls import path

from . import views

app_name = "letters"
urlpatterns = [
    path("", views.home, name="home"),
    path("keep/", views.keep, name="keep"),
    path("stop/", views.stop, name="stop"),
]
