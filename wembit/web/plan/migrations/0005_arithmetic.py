from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("plan", "0004_thin_layers")]

    operations = [
        migrations.AddField("project", "arithmetic", models.PositiveSmallIntegerField(default=0, editable=False)),
        migrations.AlterField("project", "arithmetic", models.PositiveSmallIntegerField(default=1, editable=False)),
    ]
