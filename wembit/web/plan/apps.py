"""The app plan: it keeps the promises true after every entry of the ledger."""

from django.apps import AppConfig


class PlanConfig(AppConfig):
    name = "wembit.web.plan"
    label = "plan"

    def ready(self):
        from wembit.web.stash.ledger import posted

        posted.connect(keep_promises, dispatch_uid="plan.keep_promises")


def keep_promises(sender, entry, items, **_):
    from .actions.reserve import reserve

    reserve(entry.studio, items)
