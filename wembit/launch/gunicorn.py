"""Settings of the web server."""

import gc
from typing import Any

from django.urls import get_resolver

from wembit.launch.machine import this_machine

workers = this_machine().workers
threads = 64  # most of them only wait for requests that are on their way; wembit.web.wsgi lets four work at once
worker_class = "wembit.launch.patient_worker.PatientWorker"
limit_request_fields = 60
limit_request_field_size = 4094
preload_app = True
worker_tmp_dir = "/dev/shm"
control_socket_disable = True
accesslog = None
loglevel = "warning"
graceful_timeout = 10


def when_ready(server: Any) -> None:
    """All that is loaded stays for good: share it between the workers and never look through it for rubbish."""
    get_resolver().url_patterns  # noqa: B018  what views need is loaded here, once, not in each worker
    gc.collect()
    gc.freeze()


def post_worker_init(worker: Any) -> None:
    """Look for rubbish seldom: a page makes hundreds of thousands of things, nearly all of which go by themselves."""
    gc.set_threshold(20_000, 20, 20)
