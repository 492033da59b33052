from django.db import migrations


def told_anew(apps, schema_editor):
    """What bags say of the projects that they are promised to, as those now are."""
    Need, Promise = apps.get_model("plan", "Need"), apps.get_model("stash", "Promise")
    for need in Need.objects.filter(pk__in=Promise.objects.values("need")).select_related("project"):
        project = need.project
        Promise.objects.filter(need=need.pk).update(due=project.due, whose=project.name, priority=project.priority)


class Migration(migrations.Migration):

    dependencies = [("plan", "0009_sizes"), ("stash", "0020_promises_in_turn")]

    operations = [migrations.RunPython(told_anew, migrations.RunPython.noop)]
