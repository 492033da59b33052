"""The entry point of the web server."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "wembit.web.settings")
application = get_wsgi_application()
