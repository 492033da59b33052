"""All that 0001 to 0008 make, for a database that has nothing yet; one that has begun goes on with them."""

import django.db.models.deletion
import uuid
from django.db import migrations, models


class Migration(migrations.Migration):

    replaces = [('bench', '0001_initial'), ('bench', '0002_instead_of'), ('bench', '0003_things'), ('bench', '0004_what_work_took'), ('bench', '0005_ready_and_dry'), ('bench', '0006_seen_pieces'), ('bench', '0007_was_loose'), ('bench', '0008_sizes')]

    initial = True

    dependencies = [
        ('figures', '0001_squashed_0011_thought_colours'),
        ('plan', '0001_squashed_0010_promises_told'),
        ('stash', '0001_squashed_0020_promises_in_turn'),
        ('studio', '0001_squashed_0011_hands'),
    ]

    operations = [
        migrations.CreateModel(
            name='Making',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('number', models.PositiveSmallIntegerField(default=1)),
                ('scale', models.FloatField(default=1.0)),
                ('begun_at', models.DateTimeField()),
                ('finished_at', models.DateTimeField(null=True)),
                ('photo', models.ImageField(blank=True, upload_to='')),
                ('needles_out', models.PositiveSmallIntegerField(default=0)),
                ('minutes', models.JSONField(default=dict)),
                ('took', models.JSONField(default=dict)),
                ('gone', models.CharField(blank=True, choices=[('', 'in stock'), ('given', 'given'), ('sold', 'sold')], max_length=8)),
                ('whom', models.CharField(blank=True, max_length=80)),
                ('gone_on', models.DateField(null=True)),
                ('missing', models.CharField(blank=True, max_length=120)),
                ('colourway', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='makings', to='figures.colourway')),
                ('maker', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='studio.member')),
                ('project', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='makings', to='plan.project')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['begun_at'],
                'constraints': [models.UniqueConstraint(fields=('project', 'number'), name='one_making_a_number')],
            },
        ),
        migrations.CreateModel(
            name='Drying',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('step', models.CharField(max_length=80)),
                ('words', models.CharField(max_length=160)),
                ('begun_at', models.DateTimeField()),
                ('until', models.DateTimeField()),
                ('dry', models.BooleanField(default=False)),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('making', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='dryings', to='bench.making')),
            ],
            options={
                'ordering': ['until'],
                'constraints': [models.UniqueConstraint(fields=('making', 'step'), name='one_drying_a_step')],
            },
        ),
        migrations.CreateModel(
            name='MakingThing',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('need', models.UUIDField(null=True)),
                ('words', models.CharField(max_length=80)),
                ('what_for', models.CharField(blank=True, max_length=80)),
                ('amount', models.DecimalField(decimal_places=3, max_digits=12)),
                ('position', models.PositiveSmallIntegerField(default=0)),
                ('item', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='stash.item')),
                ('making', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='things', to='bench.making')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['position'],
            },
        ),
        migrations.CreateModel(
            name='Piece',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('part_key', models.SlugField(max_length=40)),
                ('name', models.CharField(max_length=50)),
                ('position', models.PositiveSmallIntegerField(default=0)),
                ('state', models.CharField(choices=[('planned', 'planned'), ('weighed', 'weighed'), ('made', 'made'), ('waiting', 'waiting'), ('fitted', 'fitted')], default='planned', max_length=8)),
                ('long_mm', models.FloatField(null=True)),
                ('thick_mm', models.FloatField(null=True)),
                ('was_loose', models.BooleanField(default=False)),
                ('photo', models.ImageField(blank=True, upload_to='')),
                ('seen', models.JSONField(default=dict)),
                ('making', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='pieces', to='bench.making')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['position'],
            },
        ),
        migrations.CreateModel(
            name='NeedleBreak',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('role', models.CharField(blank=True, max_length=8)),
                ('tip_found', models.BooleanField(default=False)),
                ('entry', models.OneToOneField(on_delete=django.db.models.deletion.PROTECT, related_name='broke', to='stash.entry')),
                ('item', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='stash.item')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('piece', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='breaks', to='bench.piece')),
            ],
            options={
                'ordering': ['entry__recorded_at'],
            },
        ),
        migrations.CreateModel(
            name='PieceLayer',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('seen', models.BooleanField(default=True)),
                ('need', models.UUIDField(null=True)),
                ('role', models.CharField(max_length=8)),
                ('slot_name', models.CharField(max_length=40)),
                ('rule_g', models.FloatField()),
                ('bias', models.FloatField(default=1.0)),
                ('sigma', models.FloatField(default=0.25)),
                ('counts_for', models.CharField(blank=True, max_length=12)),
                ('freed', models.DecimalField(decimal_places=3, default=0, max_digits=12)),
                ('position', models.PositiveSmallIntegerField(default=0)),
                ('instead_of', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='stash.item')),
                ('item', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='stash.item')),
                ('piece', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='layers', to='bench.piece')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['position'],
            },
        ),
        migrations.CreateModel(
            name='Spell',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('part_key', models.SlugField(max_length=40)),
                ('begun_at', models.DateTimeField()),
                ('ended_at', models.DateTimeField(null=True)),
                ('sure', models.BooleanField(default=False)),
                ('entry', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='stash.entry')),
                ('maker', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='studio.member')),
                ('making', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='spells', to='bench.making')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['begun_at'],
                'constraints': [models.UniqueConstraint(condition=models.Q(('ended_at', None)), fields=('maker',), name='one_part_in_hand')],
            },
        ),
        migrations.CreateModel(
            name='ThingTake',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('movement', models.OneToOneField(on_delete=django.db.models.deletion.PROTECT, related_name='thing_take', to='stash.movement')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('thing', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='takes', to='bench.makingthing')),
            ],
            options={
                'abstract': False,
            },
        ),
        migrations.CreateModel(
            name='Trim',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('grams', models.DecimalField(decimal_places=3, max_digits=12)),
                ('entry', models.OneToOneField(on_delete=django.db.models.deletion.PROTECT, related_name='trimmed_off', to='stash.entry')),
                ('layer', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='trims', to='bench.piecelayer')),
                ('lot', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='stash.lot')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'abstract': False,
            },
        ),
        migrations.CreateModel(
            name='Try',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('grams', models.DecimalField(decimal_places=3, max_digits=12)),
                ('reason', models.CharField(blank=True, choices=[('big', 'too big'), ('soft', 'too soft'), ('colour', 'wrong colour'), ('needle', 'broken needle'), ('flat', 'felted too flat')], max_length=12)),
                ('entry', models.OneToOneField(on_delete=django.db.models.deletion.PROTECT, related_name='given_up', to='stash.entry')),
                ('lot', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='stash.lot')),
                ('piece', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='tries', to='bench.piece')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['entry__recorded_at'],
            },
        ),
        migrations.CreateModel(
            name='Take',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('measured', models.BooleanField(default=True)),
                ('aside', models.BooleanField(default=False)),
                ('layer', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='takes', to='bench.piecelayer')),
                ('movement', models.OneToOneField(on_delete=django.db.models.deletion.PROTECT, related_name='take', to='stash.movement')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('given_up', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='takes', to='bench.try')),
            ],
            options={
                'abstract': False,
            },
        ),
        migrations.CreateModel(
            name='Guess',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('kind', models.CharField(choices=[('tuft', 'tuft'), ('wisp', 'wisp'), ('pinch', 'pinch'), ('handful', 'handful')], max_length=8)),
                ('guessed_g', models.FloatField(null=True)),
                ('grams', models.FloatField()),
                ('made_at', models.DateTimeField()),
                ('member', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.member')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['made_at'],
                'indexes': [models.Index(fields=['member', 'made_at'], name='guess_of_a_member')],
            },
        ),
    ]
