"""The figures of a run, while it goes on and when it has ended."""

from bridle.core.figure import Figure, Formula, figure, term

DELAYED = Formula("late + held_up", "what was lost to late frames and pauses, and to a pause that still lasts")
FINISH = Formula("start + frames * interval + delayed", "every frame owns one slot; delays move the end")
LEFT = Formula("finish - clock", "until the end of the last frame's slot")
TAKEN_S = Formula("clock", "the run's own clock, from the first frame's moment to the end: slots, delays and pauses")
PLANNED_S = Formula("frames * interval", "every frame of the clip owns one slot; the interval, or its mean")
CLIP_S = Formula("clip", "as the plan had it when the run was begun, spare frames left out")
CLIP_TAKEN_S = Formula("clip * taken / frames", "as much of the planned clip as frames came")
PLACES = Formula("floor(pictures / visits)", "each frame of the clip takes the pictures of all places of a cycle")


def progress(
    start: float, frames: int, interval_s: float, late_s: float, held_up_s: float, clock: float
) -> list[Figure]:
    """Delay, finish and time left; `start` and `clock` are epoch seconds on the shoot's own clock."""
    delayed = late_s + held_up_s
    finish = start + frames * interval_s + delayed
    late = term("late", "late frames and past pauses", late_s, "s")
    held_up = term("held_up", "the pause that lasts", held_up_s, "s")
    slots = (
        term("start", "first frame, as planned", start, "instant"),
        term("frames", "frames", frames, "frames"),
        term("interval", "interval", interval_s, "s"),
        term("delayed", "delayed by", delayed, "s"),
    )
    end = term("finish", "finished", max(finish, clock), "instant")
    now = term("clock", "clock of the shoot", clock, "instant")
    return [
        figure("run.delayed", "delayed by", delayed, "s", DELAYED, late, held_up),
        figure("run.finish", "finished", finish, "instant", FINISH, *slots),
        figure("run.left", "time left", max(0.0, finish - clock), "s", LEFT, end, now),
    ]


def tally(pictures: int, taken: int, planned_s: float, taken_s: float, clip_s: float, visits: int = 1) -> list[Figure]:
    """Planned against taken, as the logbook keeps it; times in seconds, `visits` pictures to a frame of the clip."""
    frames, came = pictures // visits, taken // visits
    interval = term("interval", "interval", planned_s / frames, "s")
    clip = term("clip", "clip, planned", clip_s, "s")
    planned, gone = term("frames", "frames planned", frames, "frames"), term("taken", "frames taken", came, "frames")
    made = [
        figure("log.planned", "on site, planned", planned_s, "s", PLANNED_S, planned, interval),
        figure("log.taken", "on site, taken", taken_s, "s", TAKEN_S, term("clock", "on the run's clock", taken_s, "s")),
        figure("log.clip_planned", "clip, planned", clip_s, "s", CLIP_S, clip),
        figure("log.clip_taken", "clip, taken", came * clip_s / frames, "s", CLIP_TAKEN_S, clip, gone, planned),
    ]
    if visits == 1:
        return made
    each = term("visits", "places in a cycle", visits, "")
    shot = term("pictures", "pictures taken", taken, "")
    return [*made, figure("log.cycles", "frames of the clip, taken", came, "frames", PLACES, shot, each)]
