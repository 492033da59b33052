from django.db import migrations

from wembit.core.grams.scaling import scaled_armature, scaled_fitting, scaled_rule, scaled_seat, scaled_shape

LOOSE_END = "loose_end_mm"


def make_them_as_large_as_they_are(apps, schema_editor):
    """Every figure that was scaled gets the sizes that it had at its scale."""
    Version = apps.get_model("figures", "Version")
    for version in Version.objects.exclude(scale=1.0).select_related("studio"):
        times, habit = version.scale, version.studio.habits.get(LOOSE_END, 0.0)
        for part in version.parts.all():
            part.shape, part.seat = scaled_shape(part.shape, times), scaled_seat(part.seat, times)
            part.armature = scaled_armature(part.armature, times)
            end = habit if part.loose_end_mm is None else part.loose_end_mm
            part.loose_end_mm = end * times if end else part.loose_end_mm
            part.save()
            for layer in part.layers.all():
                layer.rule = scaled_rule(layer.role, layer.rule, times)
                layer.save()
        version.notions = [scaled_fitting(kept, times) for kept in version.notions]
        version.faces = [
            {**face, "seats": {key: scaled_seat(seat, times) for key, seat in face["seats"].items()}}
            for face in version.faces
        ]
        version.save()


class Migration(migrations.Migration):

    dependencies = [
        ("figures", "0008_colourways_and_faces"),
    ]

    operations = [
        migrations.RunPython(make_them_as_large_as_they_are, migrations.RunPython.noop),
    ]
