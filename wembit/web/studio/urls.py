"""Addresses of a studio itself."""

from django.urls import path

from . import house_views, session_views

app_name = "studio"
urlpatterns = [
    path("house/", house_views.house, name="house"),
    path("house/settings/", house_views.keep_settings, name="settings"),
    path("house/pinch/", house_views.keep_pinch, name="pinch"),
    path("house/invite/", house_views.invite, name="invite"),
    path("house/members/<uuid:member_id>/role/", house_views.role, name="role"),
    path("house/members/<uuid:member_id>/remove/", house_views.remove, name="remove"),
    path("house/members/<uuid:member_id>/password/", house_views.new_password, name="new_password"),
    path("house/password/", house_views.password, name="password"),
    path("house/signed-in/", session_views.signed_in_page, name="signed_in"),
    path("house/signed-in/end/", session_views.end, name="end_session"),
    path("house/links/<uuid:link_id>/withdraw/", house_views.withdraw, name="withdraw"),
    path("house/backup/", house_views.backup_now, name="backup"),
    path("hand/<uuid:member_id>/", house_views.hand, name="hand"),
    path("second-hand/", house_views.second_hand, name="second_hand"),
]
