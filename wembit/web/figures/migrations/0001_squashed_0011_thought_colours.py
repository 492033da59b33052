"""All that 0001 to 0011 make, for a database that has nothing yet; one that has begun goes on with them."""

import django.db.models.deletion
import django.db.models.functions.text
import uuid
from django.db import migrations, models


class Migration(migrations.Migration):

    replaces = [('figures', '0001_initial'), ('figures', '0002_joins'), ('figures', '0003_relations'), ('figures', '0004_tracings'), ('figures', '0005_armature'), ('figures', '0006_order_of_work'), ('figures', '0007_notions_and_origin'), ('figures', '0008_colourways_and_faces'), ('figures', '0009_one_size'), ('figures', '0010_no_scale'), ('figures', '0011_thought_colours')]

    initial = True

    dependencies = [
        ('stash', '0001_squashed_0020_promises_in_turn'),
        ('studio', '0001_squashed_0011_hands'),
    ]

    operations = [
        migrations.CreateModel(
            name='Figure',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('name', models.CharField(max_length=80)),
                ('story', models.TextField(blank=True)),
                ('photo', models.ImageField(blank=True, upload_to='')),
                ('origin', models.JSONField(default=dict)),
                ('made_at', models.DateTimeField(auto_now_add=True)),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['name'],
                'constraints': [models.UniqueConstraint(models.F('studio'), django.db.models.functions.text.Lower('name'), name='one_figure_a_name')],
            },
        ),
        migrations.CreateModel(
            name='Reference',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('image', models.ImageField(height_field='height_px', upload_to='', width_field='width_px')),
                ('width_px', models.PositiveIntegerField(editable=False)),
                ('height_px', models.PositiveIntegerField(editable=False)),
                ('words', models.CharField(blank=True, max_length=80)),
                ('made_at', models.DateTimeField(auto_now_add=True)),
                ('figure', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='references', to='figures.figure')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['made_at'],
            },
        ),
        migrations.CreateModel(
            name='Tracing',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('kind', models.CharField(choices=[('silhouette', 'turned, like a body'), ('slab', 'flat, like an ear'), ('wire', 'a wire with bends')], default='silhouette', max_length=10)),
                ('points', models.JSONField(default=list)),
                ('marks', models.JSONField(default=list)),
                ('mark_mm', models.FloatField(default=100.0)),
                ('mm_a_unit', models.FloatField(default=0.25)),
                ('depth_ratio', models.FloatField(default=1.0)),
                ('thickness_mm', models.FloatField(default=4.0)),
                ('diameter_mm', models.FloatField(default=8.0)),
                ('wire_mm', models.FloatField(default=1.0)),
                ('firmness', models.CharField(choices=[('airy', 'airy'), ('soft', 'soft'), ('medium', 'medium'), ('firm', 'firm'), ('very_firm', 'very firm')], default='firm', max_length=10)),
                ('made_at', models.DateTimeField(auto_now_add=True)),
                ('figure', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='tracings', to='figures.figure')),
                ('reference', models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='tracings', to='figures.reference')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['-made_at'],
                'constraints': [models.CheckConstraint(condition=models.Q(('mark_mm__gt', 0), ('mm_a_unit__gt', 0)), name='board_has_a_scale'), models.CheckConstraint(condition=models.Q(('depth_ratio__gt', 0), ('thickness_mm__gt', 0)), name='tracing_has_depth')],
            },
        ),
        migrations.CreateModel(
            name='Version',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('number', models.PositiveSmallIntegerField(default=1)),
                ('school', models.JSONField(default=dict)),
                ('notions', models.JSONField(default=list)),
                ('faces', models.JSONField(default=list)),
                ('order', models.JSONField(default=dict)),
                ('frozen_at', models.DateTimeField(null=True)),
                ('figure', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='versions', to='figures.figure')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['-number'],
                'constraints': [models.UniqueConstraint(fields=('figure', 'number'), name='one_version_a_number')],
            },
        ),
        migrations.CreateModel(
            name='Colourway',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('name', models.CharField(default='first', max_length=40)),
                ('position', models.PositiveSmallIntegerField(default=0)),
                ('thought', models.JSONField(default=dict)),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('version', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='colourways', to='figures.version')),
            ],
            options={
                'ordering': ['position', 'name'],
                'constraints': [models.UniqueConstraint(models.F('version'), django.db.models.functions.text.Lower('name'), name='one_colourway_a_name')],
            },
        ),
        migrations.CreateModel(
            name='Part',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('key', models.SlugField(max_length=40)),
                ('name', models.CharField(max_length=40)),
                ('kind', models.CharField(default='body', max_length=12)),
                ('position', models.PositiveSmallIntegerField(default=0)),
                ('count', models.PositiveSmallIntegerField(default=1)),
                ('shape', models.JSONField()),
                ('firmness', models.CharField(blank=True, choices=[('airy', 'airy'), ('soft', 'soft'), ('medium', 'medium'), ('firm', 'firm'), ('very_firm', 'very firm')], max_length=10)),
                ('allowance', models.FloatField(blank=True, null=True)),
                ('visible', models.FloatField(blank=True, null=True)),
                ('loose_end_mm', models.FloatField(blank=True, null=True)),
                ('seat', models.JSONField(default=dict)),
                ('relations', models.JSONField(default=list)),
                ('armature', models.JSONField(default=dict)),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('version', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='parts', to='figures.version')),
            ],
            options={
                'ordering': ['position', 'name'],
                'constraints': [models.UniqueConstraint(fields=('version', 'key'), name='one_part_a_key'), models.CheckConstraint(condition=models.Q(('count__gte', 1)), name='count_at_least_one'), models.CheckConstraint(condition=models.Q(('visible__gte', 0), ('visible__lte', 1)), name='visible_is_a_share')],
            },
        ),
        migrations.CreateModel(
            name='Slot',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('name', models.CharField(max_length=40)),
                ('position', models.PositiveSmallIntegerField(default=0)),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('version', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='slots', to='figures.version')),
            ],
            options={
                'ordering': ['position', 'name'],
                'constraints': [models.UniqueConstraint(models.F('version'), django.db.models.functions.text.Lower('name'), name='one_slot_a_name')],
            },
        ),
        migrations.CreateModel(
            name='Layer',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('role', models.CharField(choices=[('core', 'core'), ('padding', 'padding'), ('cover', 'cover'), ('coat', 'coat'), ('detail', 'detail'), ('weighed', 'weighed')], max_length=8)),
                ('rule', models.JSONField(default=dict)),
                ('position', models.PositiveSmallIntegerField(default=0)),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('part', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='layers', to='figures.part')),
                ('over', models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='figures.slot')),
                ('slot', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='layers', to='figures.slot')),
            ],
            options={
                'ordering': ['position'],
            },
        ),
        migrations.CreateModel(
            name='Choice',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('item', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='choices', to='stash.item')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('colourway', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='choices', to='figures.colourway')),
                ('slot', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='choices', to='figures.slot')),
            ],
            options={
                'constraints': [models.UniqueConstraint(fields=('colourway', 'slot'), name='one_fibre_a_slot')],
            },
        ),
    ]
