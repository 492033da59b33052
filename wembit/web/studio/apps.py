"""The app studio."""

from django.apps import AppConfig


class StudioConfig(AppConfig):
    """Studios, their members and the door."""

    name = "wembit.web.studio"
    label = "studio"

    def ready(self) -> None:
        from django.db.backends.signals import connection_created

        from wembit.web.prepared import keep_planned

        connection_created.connect(keep_planned, dispatch_uid="studio.keep_planned")
