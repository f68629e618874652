"""The same stop where no file is changed: for a slicer's before-layer field, and as commands of a print host.

Neither knows where the head will stand. Both rely on what comes behind them: a slicer's next move names its place and
its feed rate. Filament that is drawn back comes back where E counts absolutely, as the file's next E says where it is
to be; pushed again at the parking place it would drip there. Where E counts relatively nothing is drawn back: there the
slicer's own retraction at the layer change has to do it.
"""

from bridle.core.subjects.parking.stop import Stand, Stop, firing, number, travel


def _stand(absolute_e: bool) -> Stand:
    return Stand(0, 0, (0, 0, 0), 0, True, absolute_e, False, False, 0, 0, (0, 0, 0))


def before(stop: Stop, absolute_e: bool) -> list[str]:
    """Until the picture is taken."""
    to = {axis: number(at) for axis, at in enumerate(stop.park) if at is not None}
    up = [] if not stop.raise_mm else ["G91", f"G1 Z{number(stop.raise_mm)} F{number(stop.raise_feed)}", "G90", "M83"]
    return [
        "G90",
        "M83",
        *_drawn_back(stop, absolute_e),
        *up,
        *travel(stop, to, stop.order),
        *firing(stop, _stand(absolute_e)),
    ]


def _drawn_back(stop: Stop, absolute_e: bool) -> list[str]:
    if stop.by_firmware:
        return ["G10"]
    return [f"G1 E-{number(stop.back_mm)} F{number(stop.back_feed)}"] if absolute_e and stop.back_mm else []


def after(stop: Stop, absolute_e: bool) -> list[str]:
    """From the picture taken to where printing goes on."""
    down = ["G91", f"G1 Z-{number(stop.raise_mm)} F{number(stop.raise_feed)}"] if stop.raise_mm else []
    return [*down, "G90", "M82" if absolute_e else "M83"]


def snippet(stop: Stop, absolute_e: bool) -> list[str]:
    """The whole stop, for a field that a slicer writes before every layer change."""
    return ["; one frame: park, press, wait", *before(stop, absolute_e), *after(stop, absolute_e)]
