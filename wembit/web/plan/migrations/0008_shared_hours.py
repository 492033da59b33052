from django.db import migrations

HOURS, OF_THE_BENCH = "hours", ("owner", "maker")


def share_out(apps, schema_editor):
    """The hours of all hands together become each maker's own: equal shares."""
    Studio, Member = apps.get_model("studio", "Studio"), apps.get_model("studio", "Member")
    MakerHours = apps.get_model("plan", "MakerHours")
    for studio in Studio.objects.filter(habits__has_key=HOURS):
        habits = dict(studio.habits)
        hours = habits.pop(HOURS) or {}
        makers = list(Member.objects.filter(studio=studio, role__in=OF_THE_BENCH))
        for maker in makers if hours else ():
            share = {day: much / len(makers) for day, much in hours.items()}
            MakerHours.objects.create(studio=studio, member=maker, hours=share)
        studio.habits = habits
        studio.save(update_fields=["habits"])


def put_together(apps, schema_editor):
    """And back: the sum of what each has."""
    MakerHours = apps.get_model("plan", "MakerHours")
    for row in MakerHours.objects.select_related("studio"):
        studio = row.studio
        studio.refresh_from_db()
        hours = dict(studio.habits.get(HOURS, {}))
        for day, much in row.hours.items():
            hours[day] = hours.get(day, 0.0) + much
        studio.habits = {**studio.habits, HOURS: hours}
        studio.save(update_fields=["habits"])


class Migration(migrations.Migration):

    dependencies = [("plan", "0007_makers_hours")]

    operations = [migrations.RunPython(share_out, put_together)]
