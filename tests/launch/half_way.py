"""Bring an empty database to where a house of an earlier day stood: python -m tests.launch.half_way APP.MIGRATION …"""

import os
import sys

import django
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.db.migrations.state import ProjectState


def bring(targets: list[tuple[str, str]]) -> None:
    """Step by step, without what stands for many steps at once."""
    executor = MigrationExecutor(connection)
    executor.loader.replace_migrations = False
    executor.loader.build_graph()
    executor.recorder.ensure_schema()
    graph, done = executor.loader.graph, set()
    state = ProjectState(real_apps=executor.loader.unmigrated_apps)
    for target in targets:
        for step in graph.forwards_plan(target):
            if step not in done:
                state = executor.apply_migration(state, graph.nodes[step])
                done.add(step)


if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "wembit.web.settings")
    django.setup()
    bring([tuple(word.split(".")) for word in sys.argv[1:]])
