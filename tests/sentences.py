"""Every sentence with slots that a snag can say, as it is written and as it reads; `make docs` writes the list."""

from collections.abc import Iterator
from pathlib import Path

from bridle.core.snag import fill
from tests.provoked import PROVOKE, provoked

FILE = Path(__file__).parents[1] / "docs" / "sentences.md"


def spoken() -> Iterator[tuple[str, str, str]]:
    """The code of each snag, each of its sentences with its slots, and how it reads where the snag is called up."""
    for code, plan in sorted(PROVOKE.items()):
        snag = next(one for one in provoked(code).snags if one.code == code)
        zone = plan.shoot.place.zone
        texts = [(snag.what, snag.slots), (snag.why, snag.slots)]
        texts += [(text, fix.slots) for fix in snag.fixes for text in (fix.label, fix.consequence)]
        for text, slots in texts:
            yield code, text, fill(text, slots, zone)


def as_text() -> str:
    """The list as Markdown."""
    lines = [
        "# What snags say",
        "",
        "Made from the snags that the tests call up: each sentence as it is written, and as it reads.",
        "",
    ]
    last = ""
    for code, template, said in spoken():
        if code != last:
            lines += ["", f"## {code}", ""] if last else [f"## {code}", ""]
            last = code
        lines.append(f"- {said}" if said == template else f"- {said}  \n  `{template}`")
    return "\n".join(lines) + "\n"


if __name__ == "__main__":
    FILE.write_text(as_text(), encoding="utf-8")
