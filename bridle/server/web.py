"""The web server: waitress, with an end to requests that never come whole."""

import json
import sys
import time
from typing import Any

from waitress.channel import HTTPChannel
from waitress.server import create_server
from waitress.task import ErrorTask

from bridle.server.said import SAID
from bridle.server.wsgi import application

HOST = "127.0.0.1"
# More than can wait for a turn, so that there is always one left for a small request.
THREADS = 20
# A thread that works something out lets the others have the interpreter so often.
SWITCH_S = 0.001
# A request is here whole within this time, or its connection is closed.
WHOLE_WITHIN_S = 30
# Connections that say nothing are closed after this time.
SILENT_S = 60
MOST_CONNECTIONS = 400
# The largest body is a piece of a print; a larger one is refused by its announced length, before any of it is read.
LARGEST_BODY = 5_000_000


class Refusal(ErrorTask):
    """What never reaches the application, told in the API's form."""

    def execute(self) -> None:
        """Say it, and close the connection."""
        error: Any = self.request.error  # type: ignore[attr-defined]
        said = SAID.get(error.code, SAID[400] if error.code < 500 else SAID[500])
        body = json.dumps({"message": said, "problems": []}).encode()
        self.status = f"{error.code} {error.reason}"
        self.response_headers = [*self.response_headers, ("Content-Type", "application/json")]
        self.set_close_on_finish()
        self.content_length = len(body)
        self.write(body)


class Channel(HTTPChannel):
    """A connection that is closed when a request has been coming for too long, however steadily it trickles."""

    error_task_class = Refusal
    began: float | None = None

    def received(self, data: bytes) -> bool:
        """Take what has come; remember since when the request has been incomplete."""
        done = super().received(data)
        coming = self.request is not None
        self.began = (self.began or time.monotonic()) if coming else None
        return bool(done)

    def readable(self) -> bool:
        """Waitress asks this at every turn of its loop."""
        if self.began is not None and time.monotonic() - self.began > WHOLE_WITHIN_S:
            self.began, self.will_close = None, True
            return False
        return bool(super().readable())


def make_server(port: int) -> Any:
    """The server on a port of this machine; `run()` serves. Raises OSError where the port is taken."""
    sys.setswitchinterval(SWITCH_S)
    server: Any = create_server(
        application,
        host=HOST,
        port=port,
        threads=THREADS,
        connection_limit=MOST_CONNECTIONS,
        channel_timeout=SILENT_S,
        cleanup_interval=10,
        asyncore_use_poll=True,
        max_request_body_size=LARGEST_BODY,
        # What a slow reader has not taken yet lies on disk; a thread does not wait for him.
        outbuf_high_watermark=256_000_000,
    )
    server.channel_class = Channel
    return server
