"""The ledger is append-only: the database refuses to change or delete its lines."""

from django.db import migrations

TABLES = ("stash_entry", "stash_movement")

FORWARD = """
CREATE FUNCTION stash_append_only() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'the ledger is append-only: take an entry back by another one'
        USING ERRCODE = 'restrict_violation';
END $$;
""" + "".join(
    f"CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON {table}"
    " FOR EACH STATEMENT EXECUTE FUNCTION stash_append_only();\n"
    for table in TABLES
)

BACKWARD = "".join(f"DROP TRIGGER append_only ON {table};\n" for table in TABLES) + "DROP FUNCTION stash_append_only();"


class Migration(migrations.Migration):
    dependencies = [("stash", "0001_initial")]
    operations = [migrations.RunSQL(FORWARD, BACKWARD)]
