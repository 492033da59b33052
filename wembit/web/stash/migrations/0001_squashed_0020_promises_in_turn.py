"""All that 0001 to 0020 make, for a database that has nothing yet; one that has begun goes on with them."""

import datetime
import django.db.models.deletion
import django.db.models.functions.text
import uuid
from django.db import migrations, models

TABLES = ("stash_entry", "stash_movement")

FORWARD = """
CREATE FUNCTION stash_append_only() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'the ledger is append-only: take an entry back by another one'
        USING ERRCODE = 'restrict_violation';
END $$;
""" + "".join(
    f"CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON {table}"
    " FOR EACH STATEMENT EXECUTE FUNCTION stash_append_only();\n"
    for table in TABLES
)

BACKWARD = "".join(f"DROP TRIGGER append_only ON {table};\n" for table in TABLES) + "DROP FUNCTION stash_append_only();"


class Migration(migrations.Migration):

    replaces = [('stash', '0001_initial'), ('stash', '0002_append_only'), ('stash', '0003_unknown_breed'), ('stash', '0004_unit_cost'), ('stash', '0005_curves'), ('stash', '0006_stash_files'), ('stash', '0007_reminders'), ('stash', '0008_own_breeds'), ('stash', '0009_notions_told'), ('stash', '0010_breed_tells_items_apart'), ('stash', '0011_happened_since_1900'), ('stash', '0012_things'), ('stash', '0013_movement_need_by_studio'), ('stash', '0014_colour_words'), ('stash', '0015_more_forms'), ('stash', '0016_closed_drawers'), ('stash', '0017_unplanned_use'), ('stash', '0018_what_a_bag_cost'), ('stash', '0019_before_merges'), ('stash', '0020_promises_in_turn')]

    initial = True

    dependencies = [
        ('studio', '0001_squashed_0011_hands'),
    ]

    operations = [
        migrations.CreateModel(
            name='Drawer',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('name', models.CharField(max_length=40)),
                ('closed_until', models.DateField(null=True)),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['name'],
                'constraints': [models.UniqueConstraint(models.F('studio'), django.db.models.functions.text.Lower('name'), name='one_drawer_a_name')],
            },
        ),
        migrations.CreateModel(
            name='Entry',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('verb', models.CharField(max_length=20)),
                ('happened_at', models.DateTimeField()),
                ('recorded_at', models.DateTimeField()),
                ('client_key', models.CharField(max_length=64)),
                ('content', models.CharField(max_length=64)),
                ('note', models.CharField(blank=True, max_length=200)),
                ('by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='studio.member')),
                ('reverses', models.OneToOneField(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='reversed_by', to='stash.entry')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'indexes': [models.Index(fields=['studio', 'by', '-recorded_at'], name='stash_entry_studio__8aa2e6_idx')],
                'constraints': [models.UniqueConstraint(fields=('studio', 'client_key'), name='one_entry_a_press'), models.CheckConstraint(condition=models.Q(('happened_at__gte', datetime.datetime(1900, 1, 1, 0, 0, tzinfo=datetime.timezone.utc))), name='happened_since_1900')],
            },
        ),
        migrations.CreateModel(
            name='OwnBreed',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('name', models.CharField(max_length=40)),
                ('micron_um', models.FloatField()),
                ('staple_mm', models.FloatField(blank=True, null=True)),
                ('like', models.JSONField(default=dict)),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['name'],
                'constraints': [models.UniqueConstraint(models.F('studio'), django.db.models.functions.text.Lower('name'), name='one_breed_a_name'), models.CheckConstraint(condition=models.Q(('micron_um__gt', 0)), name='breed_has_a_diameter')],
            },
        ),
        migrations.CreateModel(
            name='Item',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('kind', models.CharField(choices=[('fibre', 'fibre'), ('notion', 'notion')], default='fibre', max_length=6)),
                ('name', models.CharField(max_length=80)),
                ('unit', models.CharField(choices=[('g', 'g'), ('pc', 'pieces'), ('mm', 'mm')], default='g', max_length=2)),
                ('breed', models.CharField(blank=True, choices=[('merino', 'Merino'), ('corriedale', 'Corriedale'), ('bluefaced', 'Bluefaced Leicester'), ('shetland', 'Shetland'), ('jacob', 'Jacob'), ('romney', 'Romney'), ('gotland', 'Gotland'), ('wensleydale', 'Wensleydale'), ('mountain', 'Mountain mix'), ('alpaca', 'Alpaca'), ('mohair', 'Mohair'), ('down', 'Down type'), ('hill', 'Hill, kempy'), ('lustre', 'Long lustre'), ('silk', 'Silk'), ('polyester', 'Polyester'), ('mixed', 'Mixed'), ('unknown', 'Wool')], max_length=20)),
                ('form', models.CharField(blank=True, choices=[('tops', 'tops'), ('sliver', 'sliver'), ('batt', 'batt'), ('core', 'core wool'), ('locks', 'locks'), ('neps', 'neps'), ('fleece', 'fleece'), ('prefelt', 'pre-felt'), ('scrap', 'scrap'), ('filling', 'filling')], max_length=10)),
                ('notion', models.CharField(blank=True, choices=[('eyes', 'eyes'), ('wire', 'wire'), ('pipe_cleaner', 'pipe cleaner'), ('brooch_back', 'brooch back'), ('needle', 'needle'), ('thread', 'thread'), ('clay', 'polymer clay'), ('glue', 'glue'), ('pad', 'pad'), ('cutter', 'cutter'), ('stencil', 'stencil'), ('pin', 'pin'), ('loop', 'hanging loop'), ('perch', 'perch'), ('bell', 'bell'), ('bead', 'bead')], max_length=12)),
                ('size_mm', models.DecimalField(blank=True, decimal_places=2, max_digits=7, null=True)),
                ('told', models.JSONField(default=dict)),
                ('unit_cost', models.DecimalField(blank=True, decimal_places=5, max_digits=12, null=True, verbose_name='what one of it costs')),
                ('linear_g_m', models.DecimalField(blank=True, decimal_places=2, max_digits=7, null=True, verbose_name='grams a metre')),
                ('palm_g', models.DecimalField(blank=True, decimal_places=3, max_digits=7, null=True, verbose_name='what a palm of it weighs')),
                ('pinch_g', models.DecimalField(blank=True, decimal_places=4, max_digits=7, null=True, verbose_name='what a pinch of it weighs')),
                ('minimum', models.DecimalField(decimal_places=2, default=0, max_digits=10)),
                ('note', models.TextField(blank=True)),
                ('recipe', models.JSONField(default=list)),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('own_breed', models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='items', to='stash.ownbreed')),
            ],
            options={
                'ordering': ['name'],
                'constraints': [models.UniqueConstraint(models.F('studio'), models.F('kind'), models.F('breed'), models.F('own_breed'), models.F('form'), models.F('notion'), models.F('size_mm'), django.db.models.functions.text.Lower('name'), name='one_item_a_name', nulls_distinct=False), models.CheckConstraint(condition=models.Q(models.Q(('kind', 'fibre'), ('unit', 'g'), models.Q(('breed', ''), _negated=True), models.Q(('form', ''), _negated=True)), models.Q(('kind', 'notion'), models.Q(('notion', ''), _negated=True)), _connector='OR'), name='fibre_or_notion'), models.CheckConstraint(condition=models.Q(('minimum__gte', 0)), name='minimum_not_negative')],
            },
        ),
        migrations.CreateModel(
            name='Lot',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('dye_lot', models.CharField(blank=True, max_length=40)),
                ('srgb', models.CharField(blank=True, max_length=7)),
                ('lab_l', models.FloatField(null=True)),
                ('lab_a', models.FloatField(null=True)),
                ('lab_b', models.FloatField(null=True)),
                ('hue', models.CharField(blank=True, max_length=8)),
                ('curve', models.BinaryField(null=True)),
                ('predicted', models.CharField(blank=True, max_length=7)),
                ('came_as', models.CharField(blank=True, db_index=True, max_length=40)),
                ('on_hand', models.DecimalField(decimal_places=3, default=0, max_digits=12)),
                ('weighed', models.BooleanField(default=True)),
                ('unit_cost', models.DecimalField(blank=True, decimal_places=5, max_digits=12, null=True, verbose_name='what one of it cost')),
                ('mixed', models.JSONField(default=dict, editable=False)),
                ('recounted_at', models.DateTimeField(null=True)),
                ('waste', models.BooleanField(default=False)),
                ('photo', models.ImageField(blank=True, upload_to='')),
                ('made_at', models.DateTimeField(auto_now_add=True)),
                ('drawer', models.ForeignKey(blank=True, null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='lots', to='stash.drawer')),
                ('item', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='lots', to='stash.item')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'constraints': [models.CheckConstraint(condition=models.Q(('on_hand__gte', 0)), name='lot_never_below_zero'), models.UniqueConstraint(condition=models.Q(('waste', True)), fields=('studio',), name='one_waste_lot')],
            },
        ),
        migrations.CreateModel(
            name='Movement',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('kind', models.CharField(choices=[('opening', 'opening'), ('received', 'received'), ('pulled', 'pulled'), ('returned', 'returned'), ('trimmed', 'trimmed'), ('blended out', 'blended out'), ('blended in', 'blended in'), ('carded out', 'carded out'), ('carded in', 'carded in'), ('split out', 'split out'), ('split in', 'split in'), ('merged out', 'merged out'), ('merged in', 'merged in'), ('recount', 'recount'), ('discarded', 'discarded'), ('sold', 'sold')], max_length=12)),
                ('amount', models.DecimalField(decimal_places=3, max_digits=12)),
                ('need', models.UUIDField(null=True)),
                ('entry', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='movements', to='stash.entry')),
                ('lot', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='movements', to='stash.lot')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'indexes': [models.Index(condition=models.Q(('need__isnull', False)), fields=['studio', 'need'], name='movement_need'), models.Index(condition=models.Q(('need__isnull', True)), fields=['studio', 'kind'], name='movement_unplanned')],
            },
        ),
        migrations.CreateModel(
            name='Promise',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('need', models.UUIDField(db_index=True)),
                ('amount', models.DecimalField(decimal_places=3, max_digits=12)),
                ('due', models.DateField()),
                ('whose', models.CharField(max_length=120)),
                ('priority', models.PositiveSmallIntegerField(default=1)),
                ('lot', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='promises', to='stash.lot')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['priority', 'due', 'pk'],
                'constraints': [models.UniqueConstraint(fields=('lot', 'need'), name='one_promise_a_lot_and_need'), models.CheckConstraint(condition=models.Q(('amount__gt', 0)), name='promise_of_something')],
            },
        ),
        migrations.CreateModel(
            name='Reminder',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('words', models.CharField(max_length=80)),
                ('due', models.DateField()),
                ('every_days', models.PositiveSmallIntegerField(default=0)),
                ('seen_on', models.DateField(null=True)),
                ('drawer', models.ForeignKey(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='reminders', to='stash.drawer')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['due', 'words'],
            },
        ),
        migrations.CreateModel(
            name='StashFile',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('file', models.FileField(upload_to='')),
                ('name', models.CharField(max_length=120)),
                ('total', models.PositiveIntegerField()),
                ('done', models.PositiveIntegerField(default=0)),
                ('counts', models.JSONField(default=dict)),
                ('refused', models.JSONField(default=list)),
                ('made_at', models.DateTimeField(auto_now_add=True)),
                ('finished_at', models.DateTimeField(null=True)),
                ('by', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='studio.member')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['-made_at'],
            },
        ),
        migrations.RunSQL(FORWARD, BACKWARD),
    ]
