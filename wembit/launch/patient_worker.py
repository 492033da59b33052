"""gunicorn's threaded worker with a time limit on what visitors send: a request that does not arrive is let go."""

from __future__ import annotations

import math
import select
import threading
import time
from typing import Any

from gunicorn.http.errors import NoMoreData
from gunicorn.workers.gthread import TConn, ThreadWorker

HEAD_SECONDS = 10.0  # a request's head has to be here by then
BODY_SECONDS = 120.0  # 40 MB over a line of 3 Mb/s
STEP_BACK_SECONDS, MOST_STEPS = 0.002, 4  # for each request at work, before the next is accepted


class TimedSocket:
    """A socket whose `recv` waits until a deadline and not longer; everything else is the socket's own."""

    def __init__(self, sock: Any) -> None:
        self._sock = sock
        self.deadline = math.inf

    def recv(self, *arguments: Any) -> Any:
        left = self.deadline - time.monotonic()
        if left <= 0 or not select.select([self._sock], [], [], None if left == math.inf else left)[0]:
            raise NoMoreData()
        return self._sock.recv(*arguments)

    def __getattr__(self, name: str) -> Any:
        return getattr(self._sock, name)


class PatientWorker(ThreadWorker):
    """Many threads may wait for requests; how many work at once is the application's affair (`wembit.web.wsgi`). A worker that
    is at work lets another one that is idle take the next request: within a process two requests take turns.
    """

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.at_work, self.counting = 0, threading.Lock()

    def accept(self, listener: Any) -> None:
        if self.at_work:
            time.sleep(STEP_BACK_SECONDS * min(self.at_work, MOST_STEPS))
        super().accept(listener)

    def handle(self, conn: TConn) -> Any:
        if not isinstance(conn.sock, TimedSocket):
            conn.sock = TimedSocket(conn.sock)  # type: ignore[assignment] # all of a socket but its type
        conn.sock.deadline = time.monotonic() + HEAD_SECONDS  # type: ignore[attr-defined]
        return super().handle(conn)

    def handle_request(self, req: Any, conn: TConn) -> Any:
        conn.sock.deadline = time.monotonic() + BODY_SECONDS  # type: ignore[attr-defined]
        self._count(1)
        try:
            return super().handle_request(req, conn)
        finally:
            self._count(-1)

    def _count(self, more: int) -> None:
        with self.counting:
            self.at_work += more
