"""The working of a shift of the picture: what each axis shifts across and up, added up."""

from collections.abc import Mapping

from bridle.core.figure import Term, term

# Pixels across and up, by axis.
Parts = Mapping[str, tuple[float, float]]


def expression(parts: Parts) -> str:
    """The length of all shifts together."""
    across, up = (" + ".join(f"{name}_{way}" for name in parts) for way in ("x", "y"))
    return f"sqrt(({across})**2 + ({up})**2)"


def terms(parts: Parts) -> list[Term]:
    """What each axis shifts, in pixels from one frame to the next."""
    return [
        term(f"{name}_{way}", f"by the {name}, {said}", value, "px")
        for name, part in parts.items()
        for way, said, value in (("x", "across", part[0]), ("y", "up", part[1]))
    ]
