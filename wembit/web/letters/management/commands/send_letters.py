"""Send the letters of the week that are due; with --every, look again after so many minutes, until the parent process ends."""

import logging
import os
import time
from typing import Any

from django.core.management.base import BaseCommand, CommandParser
from django.db import Error, close_old_connections

from wembit.web.letters.actions.send_letters import send_letters

log = logging.getLogger(__name__)
LOOK_S = 2.0  # how soon it sees that its parent has ended


class Command(BaseCommand):
    help = __doc__
    requires_system_checks = ()  # they load every view

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--every", type=float, default=0.0, metavar="MINUTES")

    def handle(self, *args: Any, every: float = 0.0, **options: Any) -> None:
        parent = os.getppid()
        while True:
            try:
                sent = send_letters()
                if sent:
                    self.stdout.write(f"{sent} letter{'' if sent == 1 else 's'} sent.")
            except Error as fault:  # the database is away for a moment
                log.warning("Letters wait: %s", fault)
            if not every:
                return
            close_old_connections()
            again = time.monotonic() + 60 * every
            while time.monotonic() < again:
                if os.getppid() != parent:
                    return
                time.sleep(LOOK_S)
