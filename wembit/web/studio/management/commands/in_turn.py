"""Several commands one after another in one process, since loading all of Wembit takes longer than most of them."""

import shlex
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser


class Command(BaseCommand):
    help = __doc__
    requires_system_checks = ()  # they load every view; ./test makes them

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("commands", nargs="+", help="each with its flags, as one word")

    def handle(self, *args: Any, **options: Any) -> None:
        for words in options["commands"]:
            call_command(*shlex.split(words))
