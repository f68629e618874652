"""Figures of a layered shoot: the stop, what all stops add, how the print grows a frame."""

from collections.abc import Iterator

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Layers
from bridle.core.reckon.printing import chosen, picture_s, steps_of, stop_s

FRAMES = Formula("ceil(layers / nth)", "every n-th layer, counted back from the last, which is always one")
CHOSEN = Formula("chosen", "the layers nearest to equal heights")
STOP = Formula("moves + waits", "its travels from the middle of the print, and what it waits")
ADDED = Formula("stop * frames", "one stop at each frame")
PRINT = Formula("layers_s + added", "an estimate, as good as the printer's accelerations on its card; without heating")
SHARE = Formula("added / all", "of the print with its stops")
GROWS = Formula("height / frames", "the finished height over the frames")
PICTURE = Formula("ahead + heard + exposed", "from the press to the closed shutter")
WAITS = {"hold", "wait", "settle", "lamps warm up"}


def figures(plan: Plan, frames: Layers) -> Iterator[Figure]:
    """All that follows from layers and stop; times are estimates."""
    count = len(chosen(frames))
    if frames.equal_mm and frames.z_mm:
        yield figure("printing.frames", "frames", count, "frames", CHOSEN, term("chosen", "layers", count, "layers"))
    else:
        last = min(frames.last_layer or len(frames.layers_s), len(frames.layers_s))
        layers = last - min(frames.first_layer, last) + 1
        terms = term("layers", "layers", layers, "layers"), term("nth", "every", frames.every, "layers")
        yield figure("printing.frames", "frames", count, "frames", FRAMES, *terms)
    bare = float(sum(frames.layers_s))
    stop, added = float(stop_s(plan)), float(stop_s(plan)) * count
    if stop:
        steps = steps_of(plan)
        waits = sum(step.seconds for step in steps if step.what in WAITS)
        yield figure(
            "printing.stop", "one stop", stop, "s", STOP,
            term("moves", "moves", stop - waits, "s"), term("waits", "waits", waits, "s"),
        )  # fmt: skip
        at = term("stop", "one stop", stop, "s"), term("frames", "frames", count, "frames")
        yield figure("printing.added", "all stops", added, "s", ADDED, *at)
        parts = term("added", "all stops", added, "s"), term("all", "the print with its stops", bare + added, "s")
        yield figure("printing.share", "share of the print", added / (bare + added), "share", SHARE, *parts)
    whole = term("layers_s", "its layers", bare, "s"), term("added", "all stops", added, "s")
    yield figure("printing.print", "print with its stops", bare + added, "s", PRINT, *whole)
    exposed = sum(plan.beat.bracket_s) + float(plan.beat.bracket_gap_s) * (len(plan.beat.bracket_s) - 1)
    heard = float(plan.beat.heard_s)
    yield figure(
        "printing.picture", "one picture", picture_s(plan), "s", PICTURE,
        term("ahead", "waking, half press", picture_s(plan) - exposed - heard, "s"),
        term("heard", "from the press to the open shutter", heard, "s"), term("exposed", "exposure", exposed, "s"),
    )  # fmt: skip
    if frames.z_mm:
        high = term("height", "finished height", max(frames.z_mm), "mm"), term("frames", "frames", count, "frames")
        yield figure("printing.grows", "it grows a frame", max(frames.z_mm) / count, "mm", GROWS, *high)
