"""Addresses of the figures."""

from django.urls import path

from wembit.web.figures.begin import views as begin_views
from wembit.web.figures.colourways import views as colour_views
from wembit.web.figures.figure_page import layer_views, push_views, relation_views, views, wire_views
from wembit.web.figures.files import views as file_views
from wembit.web.figures.materials_list import views as list_views
from wembit.web.figures.order_of_work import views as order_views
from wembit.web.figures.print_templates import views as template_views
from wembit.web.figures.resize import views as size_views
from wembit.web.figures.trace import views as tracing_views
from wembit.web.figures.turning import views as turning_views

app_name = "figures"
urlpatterns = [
    path("", views.home, name="home"),
    path("new/", begin_views.new, name="new"),
    path("new/<slug:plan_key>/", begin_views.plan, name="plan"),
    path("take-in/", begin_views.take_in, name="take_in"),
    path("schema/", file_views.file_schema, name="schema"),
    path("<uuid:figure_id>/", views.figure, name="figure"),
    path("<uuid:figure_id>/json/", file_views.as_json, name="json"),
    path("<uuid:figure_id>/svg/", file_views.as_svg, name="svg"),
    path("<uuid:figure_id>/describe/", views.describe, name="describe"),
    path("<uuid:figure_id>/size/", size_views.size, name="size"),
    path("<uuid:figure_id>/like/", begin_views.like, name="like"),
    path("<uuid:figure_id>/copy/", views.copy, name="copy"),
    path("<uuid:figure_id>/fibre/", views.fibre, name="fibre"),
    path("<uuid:figure_id>/part/", views.new_part, name="new_part"),
    path("<uuid:figure_id>/part/<slug:key>/", views.part, name="part"),
    path("<uuid:figure_id>/part/<slug:key>/layer/", layer_views.new, name="new_layer"),
    path("<uuid:figure_id>/part/<slug:key>/mark/", layer_views.mark, name="mark"),
    path("<uuid:figure_id>/part/<slug:key>/layer/<int:position>/", layer_views.change, name="layer"),
    path("<uuid:figure_id>/part/<slug:key>/layer/<int:position>/later/", layer_views.later, name="later_layer"),
    path("<uuid:figure_id>/part/<slug:key>/layer/<int:position>/drop/", layer_views.drop, name="drop_layer"),
    path("<uuid:figure_id>/part/<slug:key>/nudge/", push_views.nudge, name="nudge"),
    path("<uuid:figure_id>/part/<slug:key>/wire/", wire_views.wire, name="wire"),
    path("<uuid:figure_id>/colours/", colour_views.colours, name="colours"),
    path("<uuid:figure_id>/colours/way/", colour_views.way, name="colourway"),
    path("<uuid:figure_id>/colours/swap/", colour_views.swap, name="swap"),
    path("<uuid:figure_id>/face/", colour_views.face, name="face"),
    path("<uuid:figure_id>/compare/", colour_views.compare, name="compare"),
    path("<uuid:figure_id>/list/", list_views.everything, name="list"),
    path("<uuid:figure_id>/list/fit/", list_views.fit, name="fit"),
    path("<uuid:figure_id>/list/unfit/", list_views.unfit, name="unfit"),
    path("<uuid:figure_id>/origin/", list_views.origin, name="origin"),
    path("<uuid:figure_id>/order/", order_views.order, name="order"),
    path("<uuid:figure_id>/order/step/", order_views.step, name="step"),
    path("<uuid:figure_id>/order/way/", order_views.choose, name="way"),
    path("<uuid:figure_id>/turned/", turning_views.turntable, name="turntable"),
    path("<uuid:figure_id>/turned/drawn/", turning_views.drawn, name="drawn"),
    path("<uuid:figure_id>/turned/mesh/", turning_views.mesh, name="mesh"),
    path("<uuid:figure_id>/four-views/", turning_views.sheet, name="four_views"),
    path("<uuid:figure_id>/templates/", template_views.templates, name="templates"),
    path("<uuid:figure_id>/templates/pdf/", template_views.pdf, name="pdf"),
    path("<uuid:figure_id>/templates/<int:number>.svg", template_views.sheet, name="sheet"),
    path("<uuid:figure_id>/part/<slug:key>/follow/", relation_views.follow, name="follow"),
    path("<uuid:figure_id>/part/<slug:key>/let-go/", relation_views.loose, name="let_go"),
    path("<uuid:figure_id>/draw/", tracing_views.new, name="new_tracing"),
    path("<uuid:figure_id>/draw/<uuid:tracing_id>/", tracing_views.board, name="tracing"),
    path("<uuid:figure_id>/draw/<uuid:tracing_id>/keep/", tracing_views.keep, name="keep_tracing"),
    path("<uuid:figure_id>/pictures/", tracing_views.pictures, name="references"),
    path("<uuid:figure_id>/pictures/add/", tracing_views.add_picture, name="add_reference"),
    path("<uuid:figure_id>/pictures/<uuid:reference_id>/drop/", tracing_views.forget_picture, name="drop_reference"),
    path("<uuid:figure_id>/divide/", relation_views.divided, name="divide"),
    path("<uuid:figure_id>/part/<slug:key>/drop/", views.drop_part, name="drop_part"),
]
