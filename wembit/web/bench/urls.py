"""Addresses of the bench."""

from django.urls import path

from . import hand_views, learnt_views, photo_views, views, worker_view

app_name = "bench"
urlpatterns = [
    path("", views.home, name="home"),
    path("worker.js", worker_view.worker, name="worker"),
    path("hand/", hand_views.hand, name="hand"),
    path("hand/show/", hand_views.show, name="show_hand"),
    path("learnt/", learnt_views.learnt, name="learnt"),
    path("made/<uuid:figure_id>/", learnt_views.made, name="made"),
    path("made/<uuid:figure_id>/csv/", learnt_views.made_csv, name="made_csv"),
    path("begin/<uuid:project_id>/", views.begin, name="begin"),
    path("<uuid:making_id>/", views.making, name="making"),
    path("<uuid:making_id>/finish/", views.finish, name="finish"),
    path("<uuid:making_id>/picture/", views.picture, name="picture"),
    path("<uuid:making_id>/gone/", views.gone, name="gone"),
    path("<uuid:making_id>/as-made/", views.plan_as_made, name="as_made"),
    path("<uuid:making_id>/dries/", views.dries, name="let_dry"),
    path("<uuid:making_id>/needles/", views.needles_out, name="needles"),
    path("<uuid:making_id>/not-begun/", views.not_begun, name="not_begun"),
    path("drying/<uuid:drying_id>/", views.dried, name="is_dry"),
    path("thing/<uuid:thing_id>/take/", views.take_thing_for, name="take_thing"),
    path("thing/<uuid:thing_id>/back/", views.thing_back, name="thing_back"),
    path("layer/<uuid:layer_id>/enough/", views.enough, name="enough"),
    path("layer/<uuid:layer_id>/more/", views.more, name="more"),
    path("layer/<uuid:layer_id>/take/", views.take_for, name="take"),
    path("layer/<uuid:layer_id>/back/", views.back_from, name="back"),
    path("layer/<uuid:layer_id>/aside/", views.keep_aside, name="aside"),
    path("layer/<uuid:layer_id>/use/", views.take_from_aside, name="use_aside"),
    path("layer/<uuid:layer_id>/trim/", views.trim_from, name="trim"),
    path("broke/<uuid:break_id>/found/", views.tip_found, name="tip_found"),
    path("piece/<uuid:piece_id>/broke/", views.needle_broke, name="broke"),
    path("piece/<uuid:piece_id>/minutes/", views.minutes, name="minutes"),
    path("piece/<uuid:piece_id>/still/", views.still, name="still"),
    path("piece/<uuid:piece_id>/measure/", views.measure, name="measure"),
    path("piece/<uuid:piece_id>/seen/", photo_views.seen, name="seen"),
    path("piece/<uuid:piece_id>/again/", views.again_from_start, name="start_again"),
    path("piece/<uuid:piece_id>/mark/", views.mark, name="mark"),
]
