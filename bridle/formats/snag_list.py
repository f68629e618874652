"""The list of snags as a page of the documentation, written from the snags themselves."""

from bridle.core.evaluate import KINDS

_HEAD = """# Snags

What Bridle finds, in the order of the chapters. This page is written from the code (`make api`); do not edit it.
**Stop**: the shoot cannot be taken like this. **Mind**: it can, but not as meant. **Note**: good to know.
Words in braces are figures of the shoot. Every snag comes with fixes that say beforehand what they change.
"""


def snag_list() -> str:
    """The page as Markdown."""
    entries = [
        f"\n## `{kind.code}`\n\n**{kind.severity.capitalize()}**, chapter {kind.chapter}. {kind.what} {kind.why}\n"
        for kind in KINDS
    ]
    return _HEAD + "".join(entries)
