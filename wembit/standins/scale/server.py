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
from pathlib import Path
from typing import IO, Any, ClassVar
from urllib.parse import parse_qs, urlsplit

from wembit.standins.loopback import LoopbackHandler, LoopbackServer, serve

from .model import Scale

HERE = Path(__file__).parent
EVERY_S = 0.15  # between two readings of the stream
MOST_LISTENERS = 40
FILES = {
    "/": ("panel.html", "text/html; charset=utf-8"),
    "/panel.css": ("panel.css", "text/css; charset=utf-8"),
    "/panel.js": ("panel.js", "text/javascript; charset=utf-8"),
}


class Bridge(LoopbackServer):
    """Serves one scale."""

    def __init__(self, scale: Scale, port: int = 0) -> None:
        super().__init__(("127.0.0.1", port), Handler)
        self.scale = scale
        self.listeners = threading.BoundedSemaphore(MOST_LISTENERS)
        self.ended = threading.Event()

    def shutdown(self) -> None:
        """End, and every stream with it."""
        self.ended.set()
        super().shutdown()


class Handler(LoopbackHandler):
    """Answers one request."""

    server: Bridge
    DOES: ClassVar[dict[str, Any]] = {
        "/tare": lambda scale, given: scale.tare(),
        "/panel/lay": lambda scale, given: scale.lay(float(given["grams"][0])),
        "/panel/clear": lambda scale, given: scale.clear(),
        "/panel/drift": lambda scale, given: scale.drift(given["on"][0] == "1"),
        "/panel/plug": lambda scale, given: scale.plug(given["on"][0] == "1"),
    }

    def do_GET(self) -> None:  # noqa: N802 (so http.server calls it)
        path = urlsplit(self.path).path
        if not self.is_ours():
            self.say(HTTPStatus.FORBIDDEN, b"ask 127.0.0.1")
        elif path == "/reading":
            self.say(HTTPStatus.OK, self._reading(), "application/json")
        elif path == "/readings":
            self._stream()
        elif path in FILES:
            name, kind = FILES[path]
            self.say(HTTPStatus.OK, (HERE / name).read_bytes(), kind)
        else:
            self.say(HTTPStatus.NOT_FOUND, b"not here")

    def do_POST(self) -> None:  # noqa: N802
        path = urlsplit(self.path).path
        body = self.body()
        if not self.is_ours() or (path.startswith("/panel") and not self.is_from_the_panel()):
            self.say(HTTPStatus.FORBIDDEN, b"press on the panel")
        elif path not in self.DOES:
            self.say(HTTPStatus.NOT_FOUND, b"not here")
        else:
            try:
                self.DOES[path](self.server.scale, parse_qs(body.decode("utf-8", "replace")))
            except (KeyError, ValueError):
                self.say(HTTPStatus.UNPROCESSABLE_ENTITY, b"say grams as a number, on as 0 or 1")
            else:
                self.say(HTTPStatus.OK, self._reading(), "application/json")

    def _reading(self) -> bytes:
        return json.dumps(asdict(self.server.scale.read())).encode()

    def _stream(self) -> None:
        """Readings until the listener goes."""
        if not self.server.listeners.acquire(blocking=False):
            self.say(HTTPStatus.SERVICE_UNAVAILABLE, b"too many listen")
            return
        try:
            self.send_response(HTTPStatus.OK)
            self.headers_for("text/event-stream")
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

    def headers_for(self, kind: str) -> None:
        super().headers_for(kind)
        self.send_header("Access-Control-Allow-Origin", "*")  # weights are no secret; the panel asks where from


def main(port: int, until: IO[str] | None = None) -> None:
    """Serve until the process is told to end, or until `until` does."""
    serve(Bridge(Scale(time.monotonic), port), until)
