"""Learn every studio's hands from its finished makings, as Wembit now knows how: ./start does it after the migrations."""

from typing import Any

from django.core.management.base import BaseCommand

from wembit.web.bench.actions.learn import learn
from wembit.web.studio.models import Studio


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        learnt = sum(learn(studio) for studio in Studio.objects.all())
        if learnt:
            self.stdout.write(f"Learnt anew from finished makings: the hands of {learnt} studios.")
