"""Addresses of the stash."""

from django.urls import path

from wembit.web.stash.fibres import views as fibre_views
from wembit.web.stash.import_export import views as file_views
from wembit.web.stash.intake import views as intake_views
from wembit.web.stash.notions import views as notion_views
from wembit.web.stash.shelf import views
from wembit.web.stash.walk import views as walk_views

app_name = "stash"
urlpatterns = [
    path("", views.home, name="home"),
    path("stocktake/", intake_views.stocktake, name="stocktake"),
    path("delivery/", intake_views.delivery, name="delivery"),
    path("notions/", notion_views.home, name="notions"),
    path("notions/<uuid:notion_id>/", notion_views.notion, name="notion"),
    path("breeds/", fibre_views.breeds, name="breeds"),
    path("fibre/<uuid:item_id>/", fibre_views.fibre, name="fibre"),
    path("fibre/<uuid:item_id>/learn/", fibre_views.learn, name="learn"),
    path("walk/", walk_views.home, name="walk"),
    path("walk/room/", walk_views.room, name="room"),
    path("walk/reminder/", walk_views.new_reminder, name="new_reminder"),
    path("walk/reminder/<uuid:reminder_id>/", walk_views.tick, name="tick"),
    path("walk/without-a-drawer/", walk_views.place, name="walk_nowhere"),
    path("walk/<uuid:drawer_id>/", walk_views.place, name="walk_place"),
    path("walk/<uuid:drawer_id>/moths/", walk_views.moths, name="moths"),
    path("walk/<uuid:drawer_id>/clear/", walk_views.clear, name="clear"),
    path("files/", file_views.files, name="files"),
    path("files/stash.csv", file_views.stash_csv, name="stash_csv"),
    path("files/ledger.csv", file_views.ledger_csv, name="ledger_csv"),
    path("files/<uuid:file_id>/", file_views.file, name="file"),
    path("files/<uuid:file_id>/go-on/", file_views.go_on, name="file_go_on"),
    path("files/<uuid:file_id>/report/", file_views.report, name="file_report"),
    path("lot/<uuid:lot_id>/", views.lot, name="lot"),
    path("lot/<uuid:lot_id>/slice/", views.slice_of, name="slice"),
    path("lot/<uuid:lot_id>/take/", views.take, name="take"),
    path("lot/<uuid:lot_id>/put-back/", views.give_back, name="put_back"),
    path("lot/<uuid:lot_id>/weigh/", views.weigh, name="weigh"),
    path("lot/<uuid:lot_id>/split/", views.split_lot, name="split"),
    path("lot/<uuid:lot_id>/merge/", views.merge_lot, name="merge"),
    path("lot/<uuid:lot_id>/throw-away/", views.throw_away, name="throw_away"),
    path("lot/<uuid:lot_id>/describe/", views.describe_lot, name="describe"),
    path("entry/<uuid:entry_id>/take-back/", views.take_back, name="take_back"),
]
