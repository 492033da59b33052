"""The entry point of the web server."""

import os

from django.core.wsgi import get_wsgi_application

from wembit.web.whole_bodies import WholeBodies

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "wembit.web.settings")
application = WholeBodies(get_wsgi_application())
