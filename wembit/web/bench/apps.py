"""The app bench: makings in hand follow what stands in for a short fibre."""

from django.apps import AppConfig


class BenchConfig(AppConfig):
    name = "wembit.web.bench"
    label = "bench"

    def ready(self):
        from wembit.web.plan.actions.stand_in import stood_in

        stood_in.connect(follow, dispatch_uid="bench.follow_stand_in")


def follow(sender, made, **_):
    from .actions.follow_stand_in import follow_stand_in

    follow_stand_in(made)
