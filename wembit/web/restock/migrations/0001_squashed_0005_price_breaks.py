"""All that 0001 to 0005 make, for a database that has nothing yet; one that has begun goes on with them."""

import django.db.models.deletion
import django.db.models.functions.text
import uuid
from django.db import migrations, models


class Migration(migrations.Migration):

    replaces = [('restock', '0001_initial'), ('restock', '0002_feed'), ('restock', '0003_order_files'), ('restock', '0004_least_of_an_order'), ('restock', '0005_price_breaks')]

    initial = True

    dependencies = [
        ('stash', '0001_squashed_0020_promises_in_turn'),
        ('studio', '0001_squashed_0011_hands'),
    ]

    operations = [
        migrations.CreateModel(
            name='Feed',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('token_hash', models.CharField(max_length=64, unique=True)),
                ('made_at', models.DateTimeField()),
                ('member', models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.member')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'abstract': False,
            },
        ),
        migrations.CreateModel(
            name='Supplier',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('name', models.CharField(max_length=80)),
                ('lead_days', models.PositiveSmallIntegerField(default=7)),
                ('postage', models.DecimalField(decimal_places=2, default=0, max_digits=8)),
                ('minimum', models.DecimalField(decimal_places=2, default=0, max_digits=8, verbose_name='least that an order comes to')),
                ('takes_files', models.BooleanField(default=False)),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['name'],
                'constraints': [models.UniqueConstraint(models.F('studio'), django.db.models.functions.text.Lower('name'), name='one_supplier_a_name')],
            },
        ),
        migrations.CreateModel(
            name='Order',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('state', models.CharField(choices=[('draft', 'draft'), ('sent', 'sent'), ('arrived', 'arrived'), ('dropped', 'dropped')], default='draft', max_length=8)),
                ('sent_on', models.DateField(null=True)),
                ('expected_on', models.DateField(null=True)),
                ('one_dye_lot', models.BooleanField(default=False)),
                ('note', models.JSONField(default=dict, editable=False)),
                ('made_at', models.DateTimeField(auto_now_add=True)),
                ('entry', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='stash.entry')),
                ('rest_of', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='rests', to='restock.order')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('supplier', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='orders', to='restock.supplier')),
            ],
            options={
                'constraints': [models.UniqueConstraint(condition=models.Q(('state', 'draft')), fields=('supplier',), name='one_list_a_supplier')],
            },
        ),
        migrations.CreateModel(
            name='Offer',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('pack', models.DecimalField(decimal_places=2, max_digits=10)),
                ('price', models.DecimalField(decimal_places=2, max_digits=8)),
                ('lower', models.JSONField(blank=True, default=list)),
                ('item', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='offers', to='stash.item')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
                ('supplier', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='offers', to='restock.supplier')),
            ],
            options={
                'ordering': ['pack'],
                'constraints': [models.UniqueConstraint(fields=('supplier', 'item', 'pack'), name='one_offer_a_pack'), models.CheckConstraint(condition=models.Q(('pack__gt', 0), ('price__gte', 0)), name='a_pack_holds_something')],
            },
        ),
        migrations.CreateModel(
            name='OrderLine',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('pack', models.DecimalField(decimal_places=2, max_digits=10)),
                ('price', models.DecimalField(decimal_places=2, max_digits=8)),
                ('count', models.PositiveSmallIntegerField(default=1)),
                ('item', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to='stash.item')),
                ('order', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='lines', to='restock.order')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'constraints': [models.UniqueConstraint(fields=('order', 'item', 'pack'), name='one_line_a_pack')],
            },
        ),
    ]
