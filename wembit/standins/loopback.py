"""What the stand-ins' servers share: they answer on loopback only, to their own name, and log nothing."""

from __future__ import annotations

import threading
from http import HTTPStatus
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import IO, Any

POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'"
)


class LoopbackServer(ThreadingHTTPServer):
    """Serves on loopback; a port of 0 is any free one."""

    daemon_threads = True

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.server_port}"


class LoopbackHandler(BaseHTTPRequestHandler):
    """Answers one request."""

    server: LoopbackServer
    protocol_version = "HTTP/1.1"
    timeout = 30
    LARGEST_BODY = 1_000

    def body(self) -> bytes:
        """What was sent, as much of it as is taken."""
        length = self.headers.get("Content-Length", "0")
        return self.rfile.read(min(int(length), self.LARGEST_BODY)) if length.isdigit() else b""

    def is_ours(self) -> bool:
        """Whether it was asked by its own name, not by one that somebody else's page made lead here."""
        return (self.headers.get("Host") or "").split(":")[0] in ("127.0.0.1", "localhost")

    def is_from_the_panel(self) -> bool:
        return self.headers.get("Origin") in (None, self.server.address)

    def headers_for(self, kind: str) -> None:
        """The headers of every answer."""
        self.send_header("Content-Type", kind)
        self.send_header("Cache-Control", "no-store")
        self.send_header("Content-Security-Policy", POLICY)
        self.send_header("X-Content-Type-Options", "nosniff")

    def say(self, status: HTTPStatus, body: bytes, kind: str = "text/plain; charset=utf-8") -> None:
        """Answer."""
        self.send_response(status)
        self.headers_for(kind)
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)

    def log_message(self, format: str, *args: Any) -> None:  # the terminal is the product's
        """Nothing is logged."""


def serve(server: LoopbackServer, until: IO[str] | None = None) -> None:
    """Serve until the process is told to end, or until `until` does."""
    with server:

        def end_with(started_by: IO[str]) -> None:
            started_by.read()
            server.shutdown()

        if until is not None:
            threading.Thread(target=end_with, args=[until], daemon=True).start()
        server.serve_forever()
