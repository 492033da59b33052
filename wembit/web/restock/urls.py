"""Addresses of restocking."""

from django.urls import path

from wembit.web.restock.answers import views as answer_views

from . import date_views, order_views, supplier_views, views

app_name = "restock"
urlpatterns = [
    path("project/<uuid:project_id>/<uuid:item_id>/", answer_views.short, name="short"),
    path("project/<uuid:project_id>/<uuid:item_id>/accept/", answer_views.accept, name="accept"),
    path("stand-in/<uuid:stand_in_id>/take-back/", answer_views.take_back, name="stand_in_back"),
    path("", views.home, name="home"),
    path("dates/", date_views.dates, name="dates"),
    path("dates/address/", date_views.new_feed, name="new_feed"),
    path("dates/no-address/", date_views.no_feed, name="no_feed"),
    path("item/<uuid:item_id>/", views.item, name="item"),
    path("list/", views.to_list, name="to_list"),
    path("list/together/", views.put_together, name="together"),
    path("list/<uuid:line_id>/off/", views.off_list, name="off_list"),
    path("order/<uuid:order_id>/send/", views.send, name="send"),
    path("order/<uuid:order_id>/", order_views.order, name="order"),
    path("order/<uuid:order_id>/order.csv", order_views.order_csv, name="order_csv"),
    path("order/<uuid:order_id>/order.json", order_views.order_json, name="order_json"),
    path("order/<uuid:order_id>/order.pdf", order_views.order_pdf, name="order_pdf"),
    path("order/<uuid:order_id>/place/", order_views.place, name="place"),
    path("order/<uuid:order_id>/ask/", order_views.ask, name="ask"),
    path("order/<uuid:order_id>/wish/", order_views.wish, name="wish"),
    path("order/<uuid:order_id>/arrival/", views.arrival, name="arrival"),
    path("suppliers/", supplier_views.suppliers, name="suppliers"),
    path("suppliers/new/", supplier_views.supplier, name="new_supplier"),
    path("suppliers/<uuid:supplier_id>/", supplier_views.supplier, name="supplier"),
    path("suppliers/<uuid:supplier_id>/offer/", supplier_views.offer, name="offer"),
    path("suppliers/offer/<uuid:offer_id>/not-sold/", supplier_views.not_sold, name="not_sold"),
]
