"""Addresses of a studio itself."""

from django.urls import path

from . import views

app_name = "studio"
urlpatterns = [
    path("house/", views.house, name="house"),
    path("house/settings/", views.keep_settings, name="settings"),
    path("house/pinch/", views.keep_pinch, name="pinch"),
    path("house/invite/", views.invite, name="invite"),
    path("house/members/<uuid:member_id>/role/", views.role, name="role"),
    path("house/members/<uuid:member_id>/remove/", views.remove, name="remove"),
    path("house/members/<uuid:member_id>/password/", views.new_password, name="new_password"),
    path("hand/<uuid:member_id>/", views.hand, name="hand"),
    path("second-hand/", views.second_hand, name="second_hand"),
]
