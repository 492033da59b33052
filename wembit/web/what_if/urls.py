"""Addresses of what is tried."""

from django.urls import path

from . import views

app_name = "what_if"
urlpatterns = [
    path("", views.what_if, name="home"),
    path("new/", views.preview, name="preview"),
    path("answer/<uuid:project_id>/<uuid:item_id>/", views.answer, name="answer"),
    path("keep/", views.keep_it, name="keep"),
]
