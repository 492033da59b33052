"""Addresses of the colours."""

from django.urls import path

from . import views

app_name = "colour"
urlpatterns = [path("", views.home, name="home")]
