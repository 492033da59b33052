"""Starting and stopping: a private PostgreSQL cluster, migrations, the demo, the web server."""
