"""The supplier's counter: order files in, answers out, and a panel on which a day passes; on loopback only.

`POST /orders` and `GET /orders/NUMBER` are what any supplier who takes order files answers; docs/formats.md has the protocol.
What begins with `/panel` is this stand-in's own.
"""

from __future__ import annotations

import datetime as dt
import html
import json
import time
from http import HTTPStatus
from pathlib import Path
from typing import IO, Any
from urllib.parse import parse_qs, unquote, urlsplit

from wembit.days_ahead import days_in, pass_days
from wembit.standins.loopback import LoopbackHandler, LoopbackServer, serve

from .model import NONSENSE, SILENT, USUAL, Book, Otherwise, Unreadable

HERE = Path(__file__).parent
SILENCE_S = 20.0  # longer than anybody waits
MOODS = {USUAL: "answers", NONSENSE: "answers nonsense", SILENT: "does not answer"}


class Counter(LoopbackServer):
    """Serves one book. `days`: the file in which days that pass are counted; None where none can."""

    def __init__(self, days: Path | None = None, port: int = 0) -> None:
        super().__init__(("127.0.0.1", port), Handler)
        self.days = days
        self.book = Book(lambda: dt.date.today() + dt.timedelta(days_in(days)))


class Handler(LoopbackHandler):
    """Answers one request."""

    server: Counter
    LARGEST_BODY = 200_000

    def do_GET(self) -> None:  # noqa: N802 (so http.server calls it)
        path = urlsplit(self.path).path
        if not self.is_ours():
            self.say(HTTPStatus.FORBIDDEN, b"ask 127.0.0.1")
        elif path.startswith("/orders/"):
            self._tell(HTTPStatus.OK, self.server.book.find(unquote(path.removeprefix("/orders/"))))
        elif path == "/":
            self.say(HTTPStatus.OK, self._panel().encode(), "text/html; charset=utf-8")
        elif path == "/panel.css":
            self.say(HTTPStatus.OK, (HERE / "panel.css").read_bytes(), "text/css; charset=utf-8")
        else:
            self.say(HTTPStatus.NOT_FOUND, b"not here")

    def do_POST(self) -> None:  # noqa: N802
        path, body = urlsplit(self.path).path, self.body()
        if not self.is_ours() or (path.startswith("/panel") and not self.is_from_the_panel()):
            self.say(HTTPStatus.FORBIDDEN, b"press on the panel")
        elif path == "/orders":
            self._take(body)
        elif path == "/panel/day" and self.server.days is not None:
            pass_days(self.server.days, 1)
            self._back()
        elif (
            path == "/panel/mood" and (mood := parse_qs(body.decode("utf-8", "replace")).get("mood", [""])[0]) in MOODS
        ):
            self.server.book.mood = mood
            self._back()
        else:
            self.say(HTTPStatus.NOT_FOUND, b"not here")

    def _take(self, body: bytes) -> None:
        try:
            self._tell(HTTPStatus.CREATED, self.server.book.place(json.loads(body)))
        except (Unreadable, RecursionError) as fault:
            self.say(HTTPStatus.UNPROCESSABLE_ENTITY, str(fault).encode())
        except Otherwise as fault:
            self.say(HTTPStatus.CONFLICT, str(fault).encode())
        except ValueError:
            self.say(HTTPStatus.UNPROCESSABLE_ENTITY, b"an order file is JSON")

    def _tell(self, status: HTTPStatus, answer: dict[str, Any] | None) -> None:
        """An answer in the mood of the day; the book has it, whatever is heard of it."""
        if self.server.book.mood == SILENT:
            time.sleep(SILENCE_S)
            self.close_connection = True
        elif self.server.book.mood == NONSENSE:
            self.say(HTTPStatus.OK, b'{"order": 7, "arrives_on": "the day after', "application/json")
        elif answer is None:
            self.say(HTTPStatus.NOT_FOUND, b"nobody ordered that here")
        else:
            self.say(status, json.dumps(answer).encode(), "application/json")

    def _back(self) -> None:
        self.send_response(HTTPStatus.SEE_OTHER)
        self.headers_for("text/plain")
        self.send_header("Location", "/")
        self.send_header("Content-Length", "0")
        self.end_headers()

    def _panel(self) -> str:
        book = self.server.book
        rows = "".join(
            f"<li><b>{html.escape(placed.order)}</b> {sum(line.count for line in placed.lines)} packs, "
            f"comes {placed.comes:%-d %b}{', short' if placed.is_short else ''}"
            f"{', of two dye lots' if placed.has_two_lots else ''}{', late' if placed.is_late else ''}</li>"
            for placed in book.all()
        )
        moods = "".join(
            f'<button name="mood" value="{mood}"{" disabled" if mood == book.mood else ""}>{words}</button>'
            for mood, words in MOODS.items()
        )
        day = '<form method="post" action="/panel/day"><button>A day passes</button></form>' if self.server.days else ""
        return (
            (HERE / "panel.html")
            .read_text()
            .format(
                today=f"{book.today():%A %-d %B}", day=day, moods=moods, rows=rows or "<li>Nothing is ordered yet.</li>"
            )
        )


def main(port: int, days: Path | None = None, until: IO[str] | None = None) -> None:
    """Serve until the process is told to end, or until `until` does."""
    serve(Counter(days, port), until)
