"""What a kept thing was before: its revisions as a list, with when and what changed."""

from collections.abc import Callable
from datetime import datetime
from typing import Any, NamedTuple

from ninja import Schema

from bridle.server.keeping import Kept
from bridle.server.rows import UNFIT, readable

PAGE = 30
MOST_CHANGES = 3
FIRST = "as it was begun"
UNREADABLE = "it cannot be read by this Bridle"

Content = dict[str, Any]
# What differs between two contents, in words. Raises a ValueError for one that cannot be read.
Words = Callable[[Content, Content], list[str]]


class RevisionLine(Schema):
    """What a kept thing was once: its version, when it was saved, and what that save changed; `more` changes are not
    told."""

    version: int
    made_at: datetime
    name: str
    changed: list[str]
    more: int
    now: bool


class RevisionList(Schema):
    """Revisions, newest first, what is kept now before them; `before` is where the list goes on, None at its end."""

    revisions: list[RevisionLine]
    before: int | None


class _Version(NamedTuple):
    version: int
    made_at: datetime
    content: Content
    now: bool = False


def history(kept: Kept, words: Words, before: int | None = None) -> RevisionList:
    """A page of what a thing was, from a version on backwards."""
    rows = kept.revisions() if before is None else kept.revisions().filter(version__lt=before)
    found = [_Version(row.version, row.made_at, row.content) for row in readable(rows[: PAGE + 1])]
    if before is None:
        content = {name: getattr(kept, name) for name in kept.CONTENT}
        found.insert(0, _Version(kept.version, kept.changed_at, content, now=True))
    page, rest = found[:PAGE], found[PAGE : PAGE + 1]
    older: list[_Version | None] = [*page[1:], *rest]
    older += [None] * (len(page) - len(older))
    each = [_line(version, before_it, words) for version, before_it in zip(page, older, strict=True)]
    return RevisionList(revisions=each, before=page[-1].version if rest else None)


def _line(version: _Version, older: _Version | None, words: Words) -> RevisionLine:
    try:
        said = words(older.content, version.content) if older else [FIRST]
    except UNFIT:
        said = [UNREADABLE]
    return RevisionLine(
        version=version.version,
        made_at=version.made_at,
        name=str(version.content.get("name", "")) if isinstance(version.content, dict) else "",
        changed=said[:MOST_CHANGES],
        more=max(0, len(said) - MOST_CHANGES),
        now=version.now,
    )
