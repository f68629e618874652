"""The remote look: what the link costs in power and data, and how soon an alarm tells that no frame came."""

from collections.abc import Iterator

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.reckon.reckoning import Shooting

DAY_S = 86_400
DATA = Formula("picture / 1000 * pictures", "a small picture each time; what keeps the link up comes on top")
PICTURES = Formula("min(frames, day / interval) / every", "of the frames of a day")
ENERGY = Formula("link * hours", "the link stays up all the time")
ALARM = Formula("missed * interval", "so many beats without a frame, at the longest interval")


def findings(shooting: Shooting) -> Iterator[Figure]:
    """Per day; nothing where nobody looks in."""
    look = shooting.plan.trigger.look
    if look is None:
        return
    interval, longest = float(shooting.timeline.interval_s), float(shooting.timeline.rooms_s.max())
    pictures = min(shooting.frames, DAY_S / interval) / look.every_frames
    yield figure(
        "trigger.look.pictures",
        "pictures in a day",
        pictures,
        "",
        PICTURES,
        term("frames", "frames", shooting.frames, "frames"),
        term("day", "a day", DAY_S, "s"),
        term("interval", "interval", interval, "s"),
        term("every", "a picture of every so many frames", look.every_frames, ""),
    )
    seen = term("pictures", "pictures in a day", pictures, "")
    kilobytes = term("picture", "a picture has", look.picture_kb, "kB")
    yield figure("trigger.look.data", "data in a day", look.picture_kb / 1000 * pictures, "MB", DATA, kilobytes, seen)
    hours = min(DAY_S, float(shooting.solution.shoot)) / 3600
    link = term("link", "the link draws", look.link_w, "W"), term("hours", "hours of a day", hours, "h")
    yield figure("trigger.look.energy", "energy in a day", look.link_w * hours, "Wh", ENERGY, *link)
    missed = term("missed", "frames that did not come", look.alarm_frames, "frames")
    room = term("interval", "longest interval", longest, "s")
    yield figure("trigger.look.alarm", "alarm after", look.alarm_frames * longest, "s", ALARM, missed, room)
