"""Addresses of the plan."""

from django.urls import path

from . import makers_views, views

app_name = "plan"
urlpatterns = [
    path("needed-by/<uuid:item_id>/", views.needed_by, name="needed_by"),
    path("", views.home, name="home"),
    path("new/", views.new, name="new"),
    path("hours/", makers_views.hours, name="hours"),
    path("away/", makers_views.away, name="away"),
    path("away/<uuid:away_id>/back/", makers_views.back, name="back"),
    path("<uuid:project_id>/who/", makers_views.who, name="who"),
    path("<uuid:project_id>/", views.project, name="project"),
    path("<uuid:project_id>/change/", views.change, name="change"),
    path("<uuid:project_id>/move/", views.move, name="move"),
    path("<uuid:project_id>/pin/", views.pin, name="pin"),
    path("pin/<uuid:pin_id>/let-go/", views.unpin, name="unpin"),
    path("<uuid:project_id>/drop/", views.drop, name="drop"),
    path("<uuid:project_id>/finish/", views.finish, name="finish"),
    path("<uuid:project_id>/newest-version/", views.newest, name="newest"),
    path("<uuid:project_id>/list/", views.everything, name="list"),
    path("<uuid:project_id>/pull-list/", views.pull_list, name="pull_list"),
]
