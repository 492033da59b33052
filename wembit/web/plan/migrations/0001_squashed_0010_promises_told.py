"""All that 0001 to 0010 make, for a database that has nothing yet; one that has begun goes on with them."""

import django.db.models.deletion
import uuid
from django.db import migrations, models


class Migration(migrations.Migration):

    replaces = [('plan', '0001_initial'), ('plan', '0002_stand_ins'), ('plan', '0003_one_press'), ('plan', '0004_thin_layers'), ('plan', '0005_arithmetic'), ('plan', '0006_pins'), ('plan', '0007_makers_hours'), ('plan', '0008_shared_hours'), ('plan', '0009_sizes'), ('plan', '0010_promises_told')]

    initial = True

    dependencies = [
        ('figures', '0001_squashed_0011_thought_colours'),
        ('stash', '0001_squashed_0020_promises_in_turn'),
        ('studio', '0001_squashed_0011_hands'),
    ]

    operations = [
        migrations.CreateModel(
            name='MakerHours',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('hours', models.JSONField(default=dict)),
                ('member', models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name='bench_hours', to='studio.member')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'abstract': False,
            },
        ),
        migrations.CreateModel(
            name='Project',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('name', models.CharField(max_length=80)),
                ('for_whom', models.CharField(choices=[('stock', 'our own shelf'), ('order', 'somebody who ordered it'), ('gift', 'a gift'), ('market', 'a market'), ('class', 'a class'), ('kit', 'kits')], default='stock', max_length=6)),
                ('priority', models.PositiveSmallIntegerField(choices=[(1, 'by its day'), (0, 'before all others'), (2, 'when there is room')], default=1)),
                ('count', models.PositiveSmallIntegerField(default=1)),
                ('sizes', models.JSONField(blank=True, default=list)),
                ('start', models.DateField()),
                ('due', models.DateField()),
                ('state', models.CharField(choices=[('planned', 'planned'), ('done', 'done'), ('dropped', 'dropped')], default='planned', max_length=8)),
                ('made_at', models.DateTimeField(auto_now_add=True)),
                ('arithmetic', models.PositiveSmallIntegerField(default=1, editable=False)),
                ('colourway', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='projects', to='figures.colourway')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['due', 'name'],
                'constraints': [models.CheckConstraint(condition=models.Q(('count__gte', 1), ('count__lte', 500)), name='project_count'), models.CheckConstraint(condition=models.Q(('start__lte', models.F('due'))), name='starts_before_due'), models.CheckConstraint(condition=models.Q(('priority__lte', 2)), name='priority_known')],
            },
        ),
        migrations.CreateModel(
            name='Pin',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('seen', models.BooleanField(default=True)),
                ('amount', models.DecimalField(decimal_places=3, max_digits=12)),
                ('lot', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='pins', to='stash.lot')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('project', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='pins', to='plan.project')),
            ],
            options={
                'constraints': [models.UniqueConstraint(fields=('project', 'lot', 'seen'), name='one_pin_a_bag_and_need'), models.CheckConstraint(condition=models.Q(('amount__gt', 0)), name='pin_of_something')],
            },
        ),
        migrations.CreateModel(
            name='Need',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('seen', models.BooleanField(default=True)),
                ('p10', models.DecimalField(decimal_places=3, max_digits=12)),
                ('p50', models.DecimalField(decimal_places=3, max_digits=12)),
                ('p90', models.DecimalField(decimal_places=3, max_digits=12)),
                ('item', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='needs', to='stash.item')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('project', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='needs', to='plan.project')),
            ],
            options={
                'constraints': [models.UniqueConstraint(fields=('project', 'item', 'seen'), name='one_need_a_fibre')],
            },
        ),
        migrations.CreateModel(
            name='StandIn',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('seen', models.BooleanField()),
                ('count', models.PositiveSmallIntegerField()),
                ('ratio', models.FloatField(default=1.0)),
                ('remains', models.FloatField(default=0.0)),
                ('moved', models.DecimalField(decimal_places=3, max_digits=12)),
                ('client_key', models.CharField(blank=True, max_length=64)),
                ('made_at', models.DateTimeField(auto_now_add=True)),
                ('taken_back_at', models.DateTimeField(null=True)),
                ('new', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='stash.item')),
                ('old', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='stash.item')),
                ('project', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='stand_ins', to='plan.project')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['made_at'],
                'constraints': [models.CheckConstraint(condition=models.Q(('count__gte', 1)), name='stand_in_of_some'), models.CheckConstraint(condition=models.Q(('remains__gte', 0), ('remains__lt', 1)), name='stand_in_moves_some'), models.UniqueConstraint(models.F('studio'), models.F('client_key'), condition=models.Q(('client_key', ''), _negated=True), name='one_stand_in_a_press')],
            },
        ),
        migrations.CreateModel(
            name='Away',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('first', models.DateField()),
                ('last', models.DateField()),
                ('member', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='away', to='studio.member')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['first', 'last'],
                'constraints': [models.CheckConstraint(condition=models.Q(('first__lte', models.F('last'))), name='away_goes_forward')],
            },
        ),
        migrations.CreateModel(
            name='LeftToOthers',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('figure', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='figures.figure')),
                ('member', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='leaves', to='studio.member')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'constraints': [models.UniqueConstraint(fields=('member', 'figure'), name='left_to_others_once')],
            },
        ),
    ]
