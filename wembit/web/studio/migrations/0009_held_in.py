"""Sessions are found by the person whose hand they hold; those that are there are read once."""

import uuid

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


def read_sessions(apps, _):
    from django.contrib.sessions.models import Session  # reads its own data, which a historical model does not

    user, held_in = apps.get_model("studio", "User"), apps.get_model("studio", "HeldIn")
    known = {str(pk) for pk in user.objects.values_list("pk", flat=True)}
    for session in Session.objects.iterator(chunk_size=500):
        hands = known & set(session.get_decoded().get("hands", {}))
        held_in.objects.bulk_create([held_in(user_id=pk, session_key=session.session_key) for pk in hands])


class Migration(migrations.Migration):
    dependencies = [("studio", "0008_rounds_and_backups"), ("sessions", "0001_initial")]

    operations = [
        migrations.CreateModel(
            name="HeldIn",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("session_key", models.CharField(max_length=40)),
                (
                    "user",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="held_in",
                        to=settings.AUTH_USER_MODEL,
                    ),
                ),
            ],
            options={
                "constraints": [
                    models.UniqueConstraint(fields=("user", "session_key"), name="held_once_in_a_session")
                ],
            },
        ),
        migrations.RunPython(read_sessions, migrations.RunPython.noop),
    ]
