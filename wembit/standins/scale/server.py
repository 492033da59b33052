"""The bridge of the scale: readings as JSON and as a stream, and a panel to lay wool on it; on loopback only.

`GET /reading` and `GET /readings` (server-sent events) are what any bridge of a scale answers; docs/formats.md has the
protocol. What begins with `/panel` is this stand-in's own.
"""

from __future__ import annotations

import json
import threading
import time
from dataclasses import asdict
from http import HTTPStatus
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import IO, Any, ClassVar
from urllib.parse import parse_qs, urlsplit

from .model import Scale

HERE = Path(__file__).parent
EVERY_S = 0.15  # between two readings of the stream
MOST_LISTENERS = 40
LARGEST_BODY = 1_000
FILES = {
    "/": ("panel.html", "text/html; charset=utf-8"),
    "/panel.css": ("panel.css", "text/css; charset=utf-8"),
    "/panel.js": ("panel.js", "text/javascript; charset=utf-8"),
}
POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; connect-src 'self'; form-action 'none'; base-uri 'none'"
)


class Bridge(ThreadingHTTPServer):
    """Serves one scale."""

    daemon_threads = True

    def __init__(self, scale: Scale, port: int = 0) -> None:
        super().__init__(("127.0.0.1", port), Handler)
        self.scale = scale
        self.listeners = threading.BoundedSemaphore(MOST_LISTENERS)
        self.ended = threading.Event()

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.server_port}"

    def shutdown(self) -> None:
        """End, and every stream with it."""
        self.ended.set()
        super().shutdown()


class Handler(BaseHTTPRequestHandler):
    """Answers one request."""

    server: Bridge
    protocol_version = "HTTP/1.1"
    timeout = 30
    DOES: ClassVar[dict[str, Any]] = {
        "/tare": lambda scale, given: scale.tare(),
        "/panel/lay": lambda scale, given: scale.lay(float(given["grams"][0])),
        "/panel/clear": lambda scale, given: scale.clear(),
        "/panel/drift": lambda scale, given: scale.drift(given["on"][0] == "1"),
        "/panel/plug": lambda scale, given: scale.plug(given["on"][0] == "1"),
    }

    def do_GET(self) -> None:
        path = urlsplit(self.path).path
        if not self._is_ours():
            self._say(HTTPStatus.FORBIDDEN, b"ask 127.0.0.1")
        elif path == "/reading":
            self._say(HTTPStatus.OK, self._reading(), "application/json")
        elif path == "/readings":
            self._stream()
        elif path in FILES:
            name, kind = FILES[path]
            self._say(HTTPStatus.OK, (HERE / name).read_bytes(), kind)
        else:
            self._say(HTTPStatus.NOT_FOUND, b"not here")

    def do_POST(self) -> None:
        path = urlsplit(self.path).path
        length = self.headers.get("Content-Length", "0")
        body = self.rfile.read(min(int(length), LARGEST_BODY)) if length.isdigit() else b""
        if not self._is_ours() or (path.startswith("/panel") and not self._is_from_the_panel()):
            self._say(HTTPStatus.FORBIDDEN, b"press on the panel")
        elif path not in self.DOES:
            self._say(HTTPStatus.NOT_FOUND, b"not here")
        else:
            try:
                self.DOES[path](self.server.scale, parse_qs(body.decode("utf-8", "replace")))
            except (KeyError, ValueError):
                self._say(HTTPStatus.UNPROCESSABLE_ENTITY, b"say grams as a number, on as 0 or 1")
            else:
                self._say(HTTPStatus.OK, self._reading(), "application/json")

    def _reading(self) -> bytes:
        return json.dumps(asdict(self.server.scale.read())).encode()

    def _is_ours(self) -> bool:
        """Whether it was asked by its own name, not by one that somebody else's page made lead here."""
        return (self.headers.get("Host") or "").split(":")[0] in ("127.0.0.1", "localhost")

    def _is_from_the_panel(self) -> bool:
        return self.headers.get("Origin") in (None, self.server.address)

    def _stream(self) -> None:
        """Readings until the listener goes."""
        if not self.server.listeners.acquire(blocking=False):
            self._say(HTTPStatus.SERVICE_UNAVAILABLE, b"too many listen")
            return
        try:
            self.send_response(HTTPStatus.OK)
            self._headers("text/event-stream")
            self.send_header("Connection", "close")
            self.end_headers()
            while not self.server.ended.is_set():
                self.wfile.write(b"data: " + self._reading() + b"\n\n")
                self.wfile.flush()
                time.sleep(EVERY_S)
        except OSError:  # it went
            pass
        finally:
            self.server.listeners.release()
            self.close_connection = True

    def _headers(self, kind: str) -> None:
        self.send_header("Content-Type", kind)
        self.send_header("Cache-Control", "no-store")
        self.send_header("Access-Control-Allow-Origin", "*")  # weights are no secret; the panel asks where from
        self.send_header("Content-Security-Policy", POLICY)
        self.send_header("X-Content-Type-Options", "nosniff")

    def _say(self, status: HTTPStatus, body: bytes, kind: str = "text/plain; charset=utf-8") -> None:
        self.send_response(status)
        self._headers(kind)
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)

    def log_message(self, format: str, *args: Any) -> None:  # the terminal is the product's
        """Nothing is logged."""


def main(port: int, until: IO[str] | None = None) -> None:
    """Serve until the process is told to end, or until `until` does."""
    with Bridge(Scale(time.monotonic), port) as bridge:

        def end_with(started_by: IO[str]) -> None:
            started_by.read()
            bridge.shutdown()

        if until is not None:
            threading.Thread(target=end_with, args=[until], daemon=True).start()
        bridge.serve_forever()
