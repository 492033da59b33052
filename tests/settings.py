"""Settings of the tests: quick passwords, plain static files, no pool."""

from tests import templates
from wembit.web.settings import *  # noqa: F403
from wembit.web.settings import DATABASES, STORAGES

SECRET_KEY = "tests only"
del DATABASES["default"]["OPTIONS"]["pool"]
if templates.are_made():
    DATABASES["default"]["TEST"] = {"TEMPLATE": templates.MIGRATED}
PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
STORAGES["staticfiles"] = {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"}
AXES_ENABLED = False
