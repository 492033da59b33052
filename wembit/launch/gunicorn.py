"""Settings of the web server."""

workers = 2
threads = 4
worker_class = "gthread"
preload_app = True
worker_tmp_dir = "/dev/shm"
control_socket_disable = True
accesslog = None
loglevel = "warning"
graceful_timeout = 10
