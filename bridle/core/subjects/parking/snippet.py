"""The same stop where no file is changed: for a slicer's before-layer field, and as commands of a print host.

Neither knows where the head will stand. Both rely on what comes behind them: a slicer's next move names its place and
its feed rate; so modes are set, used and set back, and the filament that is drawn back is pushed again.
"""

from bridle.core.subjects.parking.stop import Stand, Stop, firing, number


def _stand(absolute_e: bool) -> Stand:
    return Stand(0, 0, (0, 0, 0), 0, True, absolute_e, False, False, 0, 0, (0, 0, 0))


def before(stop: Stop) -> list[str]:
    """Until the picture is taken."""
    words = "".join(f" {'XY'[axis]}{number(to)}" for axis, to in enumerate(stop.park) if to is not None)
    draw = ["G10"] if stop.by_firmware else [f"G1 E-{number(stop.back_mm)} F{number(stop.back_feed)}"]
    up = [] if not stop.raise_mm else ["G91", f"G1 Z{number(stop.raise_mm)} F{number(stop.raise_feed)}", "G90", "M83"]
    away = [f"G0{words} F{number(stop.travel_feed)}"] if words else []
    return ["G90", "M83", *(draw if stop.back_mm or stop.by_firmware else []), *up, *away, *firing(stop, _stand(True))]


def after(stop: Stop, absolute_e: bool) -> list[str]:
    """From the picture taken to where printing goes on."""
    down = (
        [] if not stop.raise_mm else ["G91", f"G1 Z-{number(stop.raise_mm)} F{number(stop.raise_feed)}", "G90", "M83"]
    )
    push = ["G11"] if stop.by_firmware else [f"G1 E{number(stop.back_mm)} F{number(stop.back_feed)}"]
    return [*down, *(push if stop.back_mm or stop.by_firmware else []), "G90", "M82" if absolute_e else "M83"]


def snippet(stop: Stop, absolute_e: bool) -> list[str]:
    """The whole stop, for a field that a slicer writes before every layer change."""
    return ["; one frame: park, press, wait", *before(stop), *after(stop, absolute_e)]
