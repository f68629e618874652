"""A process that ends at every place at which it changes a file or a row, one place after another.

The change is made in a child process that ends, without any goodbye, just before the k-th step that writes: opening a
file to write, giving it another name, taking it away, a statement that changes a row, the end of a transaction. What
it had not committed is gone, as after a kill; what stood on the disk by then stays.
"""

import os
import sys
from collections.abc import Callable, Iterator
from typing import Any

from django.db import connection
from django.db.backends.base.base import BaseDatabaseWrapper

CUT, DONE, FAILED = 9, 0, 7
WRITES = ("INSERT", "UPDATE", "DELETE", "REPLACE")
FILES = {"os.rename", "os.remove", "os.mkdir", "os.rmdir", "os.truncate", "os.link"}
WRITING = os.O_WRONLY | os.O_RDWR | os.O_CREAT | os.O_TRUNC
MOST = 400


class _Steps:
    def __init__(self, last: int, about: str) -> None:
        self.left, self.about, self.inside = last, about, False

    def step(self) -> None:
        if not self.inside:
            self.left -= 1
            if self.left < 0:
                os._exit(CUT)

    def file(self, event: str, arguments: tuple[Any, ...]) -> None:
        """An audit hook: the interpreter tells of every file that is touched, before it is."""
        if event == "open":
            path, _, flags = arguments
            writes = isinstance(flags, int) and flags & WRITING
        else:
            path, writes = (arguments or ("",))[0], event in FILES
        if writes and self.about in os.fsdecode(path if isinstance(path, str | bytes | os.PathLike) else ""):
            self.step()

    def statement(self, execute: Callable[..., Any], sql: str, *rest: Any) -> Any:
        if sql.lstrip().upper().startswith(WRITES):
            self.step()
        return execute(sql, *rest)


def cuts(does: Callable[[], object], about: str) -> Iterator[int]:
    """End a process that does this before its first step, before its second, and so on; yields after each end.

    Whoever iterates sets everything up anew each time. Files count where `about` stands in their name. The last round
    is cut after its last step: all is done, and nobody has heard of it.
    """
    for last in range(MOST):
        code = _cut_at(does, last, about)
        assert code in (CUT, DONE), f"the process failed by itself ({code}) when it was to be cut at step {last}"
        yield last
        if code == DONE:
            return
    raise AssertionError(f"more than {MOST} steps")


def _cut_at(does: Callable[[], object], last: int, about: str) -> int:
    connection.close()
    child = os.fork()
    if child:
        return os.waitstatus_to_exitcode(os.waitpid(child, 0)[1])
    try:
        steps = _Steps(last, about)
        commit = BaseDatabaseWrapper.commit

        def counted(self: BaseDatabaseWrapper) -> None:
            steps.step()
            commit(self)

        BaseDatabaseWrapper.commit = counted  # type: ignore[method-assign]
        sys.addaudithook(steps.file)
        with connection.execute_wrapper(steps.statement):
            does()
        os._exit(DONE)
    except BaseException as error:
        sys.stderr.write(f"{type(error).__name__}: {error}\n")
        os._exit(FAILED)
