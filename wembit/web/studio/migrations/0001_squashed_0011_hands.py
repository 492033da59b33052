"""All that 0001 to 0011 make, for a database that has nothing yet; one that has begun goes on with them."""

import django.contrib.auth.models
import django.contrib.auth.validators
import django.core.serializers.json
import django.db.models.deletion
import django.utils.timezone
import uuid
import wembit.web.studio.models
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):

    replaces = [('studio', '0001_initial'), ('studio', '0002_stamp'), ('studio', '0003_studio_habits'), ('studio', '0004_link_ends_with_password'), ('studio', '0005_deeds'), ('studio', '0006_done_presses'), ('studio', '0007_deeds_of_rows'), ('studio', '0008_rounds_and_backups'), ('studio', '0009_held_in'), ('studio', '0010_deeds_of_a_thing'), ('studio', '0011_hands')]

    initial = True

    dependencies = [
        ('auth', '0012_alter_user_first_name_max_length'),
    ]

    operations = [
        migrations.CreateModel(
            name='User',
            fields=[
                ('password', models.CharField(max_length=128, verbose_name='password')),
                ('last_login', models.DateTimeField(blank=True, null=True, verbose_name='last login')),
                ('is_superuser', models.BooleanField(default=False, help_text='Designates that this user has all permissions without explicitly assigning them.', verbose_name='superuser status')),
                ('username', models.CharField(error_messages={'unique': 'A user with that username already exists.'}, help_text='Required. 150 characters or fewer. Letters, digits and @/./+/-/_ only.', max_length=150, unique=True, validators=[django.contrib.auth.validators.UnicodeUsernameValidator()], verbose_name='username')),
                ('first_name', models.CharField(blank=True, max_length=150, verbose_name='first name')),
                ('last_name', models.CharField(blank=True, max_length=150, verbose_name='last name')),
                ('email', models.EmailField(blank=True, max_length=254, verbose_name='email address')),
                ('is_staff', models.BooleanField(default=False, help_text='Designates whether the user can log into this admin site.', verbose_name='staff status')),
                ('is_active', models.BooleanField(default=True, help_text='Designates whether this user should be treated as active. Unselect this instead of deleting accounts.', verbose_name='active')),
                ('date_joined', models.DateTimeField(default=django.utils.timezone.now, verbose_name='date joined')),
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('session_round', models.PositiveIntegerField(default=0, editable=False)),
                ('groups', models.ManyToManyField(blank=True, help_text='The groups this user belongs to. A user will get all permissions granted to each of their groups.', related_name='user_set', related_query_name='user', to='auth.group', verbose_name='groups')),
                ('user_permissions', models.ManyToManyField(blank=True, help_text='Specific permissions for this user.', related_name='user_set', related_query_name='user', to='auth.permission', verbose_name='user permissions')),
            ],
            options={
                'verbose_name': 'user',
                'verbose_name_plural': 'users',
                'abstract': False,
            },
            managers=[
                ('objects', django.contrib.auth.models.UserManager()),
            ],
        ),
        migrations.CreateModel(
            name='Member',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('role', models.CharField(choices=[('owner', 'owner'), ('maker', 'maker'), ('viewer', 'viewer')], default='maker', max_length=6)),
                ('pinch_g', models.DecimalField(blank=True, decimal_places=3, max_digits=6, null=True)),
                ('hand', models.JSONField(default=dict, editable=False)),
                ('keys_on', models.BooleanField(default=True)),
                ('user', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='memberships', to=settings.AUTH_USER_MODEL)),
            ],
        ),
        migrations.CreateModel(
            name='Studio',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('slug', models.SlugField(max_length=40, unique=True)),
                ('name', models.CharField(max_length=80)),
                ('timezone', models.CharField(default='UTC', max_length=60, validators=[wembit.web.studio.models.known_timezone])),
                ('currency', models.CharField(default='EUR', max_length=3)),
                ('decimal_mark', models.CharField(choices=[('.', 'point: 7.5'), (',', 'comma: 7,5')], default='.', max_length=1)),
                ('weight_unit', models.CharField(choices=[('g', 'grams'), ('oz', 'ounces')], default='g', max_length=2)),
                ('length_unit', models.CharField(choices=[('mm', 'millimetres'), ('cm', 'centimetres'), ('in', 'inches')], default='mm', max_length=2)),
                ('habits', models.JSONField(default=dict, editable=False)),
                ('hands', models.JSONField(default=dict, editable=False)),
                ('stamp', models.PositiveBigIntegerField(default=0, editable=False)),
                ('backed_up_at', models.DateTimeField(editable=False, null=True)),
                ('members', models.ManyToManyField(related_name='studios', through='studio.Member', to=settings.AUTH_USER_MODEL)),
            ],
        ),
        migrations.AddField(
            model_name='member',
            name='studio',
            field=models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='memberships', to='studio.studio'),
        ),
        migrations.CreateModel(
            name='Link',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('purpose', models.CharField(choices=[('join', 'join'), ('password', 'password')], max_length=8)),
                ('token_hash', models.CharField(max_length=64, unique=True)),
                ('role', models.CharField(choices=[('owner', 'owner'), ('maker', 'maker'), ('viewer', 'viewer')], default='maker', max_length=6)),
                ('password_was', models.CharField(blank=True, max_length=128)),
                ('expires_at', models.DateTimeField()),
                ('used_at', models.DateTimeField(null=True)),
                ('for_user', models.ForeignKey(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='+', to=settings.AUTH_USER_MODEL)),
                ('made_by', models.ForeignKey(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.member')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'abstract': False,
            },
        ),
        migrations.CreateModel(
            name='DonePress',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('key', models.CharField(max_length=64)),
                ('led_to', models.CharField(blank=True, max_length=500)),
                ('made_at', models.DateTimeField(db_index=True)),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'constraints': [models.UniqueConstraint(fields=('studio', 'key'), name='one_done_press_a_key')],
            },
        ),
        migrations.CreateModel(
            name='Deed',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('made_at', models.DateTimeField()),
                ('kind', models.CharField(choices=[('stock', 'stock'), ('figure', 'figure'), ('rows', 'rows'), ('other', 'other')], max_length=6)),
                ('thing', models.UUIDField(null=True)),
                ('words', models.CharField(max_length=120)),
                ('rows', models.JSONField(encoder=django.core.serializers.json.DjangoJSONEncoder, null=True)),
                ('version', models.UUIDField(null=True)),
                ('taken_back_at', models.DateTimeField(null=True)),
                ('back_key', models.CharField(blank=True, max_length=64)),
                ('member', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='deeds', to='studio.member')),
                ('studio', models.ForeignKey(editable=False, on_delete=django.db.models.deletion.CASCADE, related_name='+', to='studio.studio')),
            ],
            options={
                'ordering': ['-made_at'],
                'indexes': [models.Index(fields=['member', '-made_at'], name='studio_deed_member__746131_idx'), models.Index(fields=['studio', 'thing', '-made_at'], name='studio_deed_studio__68f11f_idx')],
            },
        ),
        migrations.CreateModel(
            name='HeldIn',
            fields=[
                ('id', models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ('session_key', models.CharField(max_length=40)),
                ('user', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='held_in', to=settings.AUTH_USER_MODEL)),
            ],
            options={
                'constraints': [models.UniqueConstraint(fields=('user', 'session_key'), name='held_once_in_a_session')],
            },
        ),
        migrations.AddConstraint(
            model_name='member',
            constraint=models.UniqueConstraint(fields=('user', 'studio'), name='one_membership_a_studio'),
        ),
    ]
