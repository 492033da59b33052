from django.db import migrations


class Migration(migrations.Migration):

    dependencies = [
        ("figures", "0009_one_size"),
    ]

    operations = [
        migrations.RemoveConstraint(model_name="version", name="scale_above_zero"),
        migrations.RemoveField(model_name="version", name="scale"),
    ]
