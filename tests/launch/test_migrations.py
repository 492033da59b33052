"""A database that is new and one that has come all the way end as the same house."""

import subprocess
import sys

import pytest

from tests.launch.conftest import a_house
from tests.serving import CHECKOUT, environment, manage
from wembit.launch.cluster import Cluster

HALF_WAY = ["plan.0005_arithmetic", "bench.0003_things"]  # a house of an earlier day
SAID = {
    "columns": "SELECT table_name, column_name, data_type, is_nullable, character_maximum_length, numeric_scale "
    "FROM information_schema.columns WHERE table_schema = 'public'",
    "constraints": "SELECT conrelid::regclass, conname, pg_get_constraintdef(oid) FROM pg_constraint "
    "WHERE connamespace = 'public'::regnamespace",
    "indexes": "SELECT indexname, indexdef FROM pg_indexes WHERE schemaname = 'public'",
    "triggers": "SELECT pg_get_triggerdef(oid) FROM pg_trigger WHERE NOT tgisinternal",
}


def house_of(cluster, database: str) -> dict[str, list[str]]:
    return {what: sorted(cluster.sql(asked, database).splitlines()) for what, asked in SAID.items()}


@pytest.mark.whole
def test_a_house_half_way_becomes_what_a_new_one_is():
    with a_house() as folder:
        cluster = Cluster(folder)
        cluster.start()
        for name in ("new", "earlier"):
            cluster.sql(f"CREATE DATABASE {name} OWNER wembit")
        new, earlier = (f"{cluster.url.rpartition('/')[0]}/{name}" for name in ("new", "earlier"))
        half_way = [sys.executable, "-m", "tests.launch.half_way", *HALF_WAY]
        subprocess.run(half_way, cwd=CHECKOUT, env=environment(earlier), check=True)
        for database in (new, earlier):
            manage(database, "migrate", "--verbosity", "0")
        assert house_of(cluster, "earlier") == house_of(cluster, "new")
        assert len(house_of(cluster, "new")["triggers"]) == 2, "the ledger is append-only"
