"""Requests are worked on when they are here: a half-sent one waits outside and holds up nobody."""

from __future__ import annotations

import tempfile
from threading import BoundedSemaphore
from typing import Any

from wembit.web.limits import BODY_BYTES

WORKING = 4  # requests worked on at once in one process
IN_MEMORY = 1_000_000
CHUNK = 65_536

ANSWERS = {
    400: ("400 Bad Request", b"The length of that request cannot be read."),
    408: ("408 Request Timeout", b"That did not arrive in time. Send it again."),
    413: ("413 Content Too Large", b"That is larger than 45 MB. Send it in pieces."),
}


class WholeBodies:
    """WSGI middleware: refuses a body by its length, reads it whole, and only then lets one of `working` threads work."""

    def __init__(self, application: Any, working: int = WORKING, largest: int = BODY_BYTES) -> None:
        self.application, self.largest = application, largest
        self.working = BoundedSemaphore(working)

    def __call__(self, environ: Any, start_response: Any) -> Any:
        text = environ.get("CONTENT_LENGTH") or "0"
        if not text.isascii() or not text.isdecimal():
            return _refused(400, start_response)
        length = int(text[:20])
        if length > self.largest:
            return _refused(413, start_response)
        if length:
            try:
                environ["wsgi.input"] = _whole(environ["wsgi.input"], length)
            except OSError:
                return _refused(408, start_response)
        with self.working:
            return self.application(environ, start_response)


def _whole(stream: Any, length: int) -> Any:
    """The body in a file of its own, in memory while it is small. Raises OSError where it does not come."""
    body = tempfile.SpooledTemporaryFile(max_size=IN_MEMORY)  # noqa: SIM115  goes with the request
    while length > 0:
        piece = stream.read(min(CHUNK, length))
        if not piece:
            raise OSError("the body ended early")
        body.write(piece)
        length -= len(piece)
    body.seek(0)
    return body


def _refused(status: int, start_response: Any) -> Any:
    line, words = ANSWERS[status]
    start_response(line, [("Content-Type", "text/plain; charset=utf-8"), ("Content-Length", str(len(words))),
                          ("Connection", "close")])  # fmt: skip
    return [words]
