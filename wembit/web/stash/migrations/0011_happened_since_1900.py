"""Nothing happened before 1900. A line that says so cannot be read by Python's dates: it gets the moment at which it was
written down, so that its studio reads on."""

import datetime as dt

from django.db import migrations, models

MEND = """
ALTER TABLE stash_entry DISABLE TRIGGER append_only;
UPDATE stash_entry SET happened_at = recorded_at WHERE happened_at < '1900-01-01T00:00:00Z';
ALTER TABLE stash_entry ENABLE TRIGGER append_only;
UPDATE stash_lot SET recounted_at = (
    SELECT max(entry.happened_at) FROM stash_entry entry JOIN stash_movement line ON line.entry_id = entry.id
    WHERE line.lot_id = stash_lot.id AND entry.verb = 'recount'
) WHERE recounted_at < '1900-01-01T00:00:00Z';
"""


class Migration(migrations.Migration):
    dependencies = [("stash", "0010_breed_tells_items_apart")]
    operations = [
        migrations.RunSQL(MEND, migrations.RunSQL.noop),
        migrations.AddConstraint(
            model_name="entry",
            constraint=models.CheckConstraint(
                condition=models.Q(happened_at__gte=dt.datetime(1900, 1, 1, tzinfo=dt.UTC)), name="happened_since_1900"
            ),
        ),
    ]
