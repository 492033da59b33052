"""Bags are called by makers' words of their colours."""

from django.db import migrations

from wembit.core.colour.colour_words import colour_word


def call(apps, schema_editor):
    lots = []
    model = apps.get_model("stash", "Lot")
    for lot in model.objects.exclude(hue="").exclude(lab_l=None).only("pk", "hue", "lab_l", "lab_a", "lab_b").iterator():
        lot.hue = colour_word(lot.lab_l, lot.lab_a, lot.lab_b)
        lots.append(lot)
    model.objects.bulk_update(lots, ["hue"], batch_size=500)


class Migration(migrations.Migration):
    dependencies = [("stash", "0013_movement_need_by_studio")]
    operations = [migrations.RunPython(call, migrations.RunPython.noop)]
