"""The figures of a run, while it goes on and when it has ended."""

from bridle.core.figure import Figure, Formula, figure, term

DELAYED = Formula("late + held_up", "what was lost to late frames and pauses, and to a pause that still lasts")
FINISH = Formula("start + frames * interval + delayed", "every frame owns one slot; delays move the end")
LEFT = Formula("finish - clock", "until the end of the last frame's slot")
TAKEN_S = Formula("taken * interval + delayed", "the slots of the frames that were taken, and the delays")
PLANNED_S = Formula("frames * interval", "every frame owns one slot of the interval")
CLIP_S = Formula("frames / rate", "frames over playback rate")


def progress(
    start: float, frames: int, interval_s: float, late_s: float, held_up_s: float, clock: float
) -> list[Figure]:
    """Delay, finish and time left; `start` and `clock` are epoch seconds on the shoot's own clock."""
    delayed = late_s + held_up_s
    finish = start + frames * interval_s + delayed
    delay = term("delayed", "delayed by", delayed, "s")
    return [
        figure(
            "run.delayed",
            "delayed by",
            delayed,
            "s",
            DELAYED,
            term("late", "late frames and past pauses", late_s, "s"),
            term("held_up", "the pause that lasts", held_up_s, "s"),
        ),
        figure(
            "run.finish",
            "finished",
            finish,
            "instant",
            FINISH,
            term("start", "first frame, as planned", start, "instant"),
            term("frames", "frames", frames, "frames"),
            term("interval", "interval", interval_s, "s"),
            delay,
        ),
        figure(
            "run.left",
            "time left",
            max(0.0, finish - clock),
            "s",
            LEFT,
            term("finish", "finished", max(finish, clock), "instant"),
            term("clock", "clock of the shoot", clock, "instant"),
        ),
    ]


def tally(frames: int, taken: int, planned_s: float, clip_s: float, delayed_s: float) -> list[Figure]:
    """Planned against taken, from what the logbook keeps; times in seconds."""
    interval = term("interval", "interval", planned_s / frames, "s")
    rate = term("rate", "playback rate", frames / clip_s, "rate")
    planned, came = term("frames", "frames planned", frames, "frames"), term("taken", "frames taken", taken, "frames")
    delay = term("delayed", "delayed by", delayed_s, "s")
    clip_taken = taken * clip_s / frames
    clip_came = term("frames", "frames taken", taken, "frames")
    on_site = taken * planned_s / frames + delayed_s
    return [
        figure("log.planned", "on site, planned", planned_s, "s", PLANNED_S, planned, interval),
        figure("log.taken", "on site, taken", on_site, "s", TAKEN_S, came, interval, delay),
        figure("log.clip_planned", "clip, planned", clip_s, "s", CLIP_S, planned, rate),
        figure("log.clip_taken", "clip, taken", clip_taken, "s", CLIP_S, clip_came, rate),
    ]
