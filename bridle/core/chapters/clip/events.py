"""What the clip is for: where events fall in it, what suits the subject, what the school of shooting allows."""

import math
from collections.abc import Iterator
from datetime import datetime
from fractions import Fraction

from bridle.core.asks.clip_offers import clip_fix
from bridle.core.asks.pegs import changed, within
from bridle.core.asks.tying import untied, untied_said
from bridle.core.chapters.clip.clock import at_term
from bridle.core.figure import Figure, Formula, Term, figure, term
from bridle.core.plan.clip import Clip
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.shoot import Event
from bridle.core.reckon.asked import spoilt
from bridle.core.reckon.picture import kept
from bridle.core.reckon.reckoning import shooting_of
from bridle.core.reckon.showing import LEAST_CHANGE, change_px, shows
from bridle.core.reckon.timeline import Timeline, instant
from bridle.core.snag import Fix, Snag, SnagKind, at_clock, slot
from bridle.core.subjects.time import starting_points
from bridle.core.subjects.time.sentence import Solution
from bridle.core.values import LONGEST_S

OUTSIDE = SnagKind(
    "event-outside",
    "mind",
    "clip",
    "{event} at {at} falls outside the shoot, which runs from {first} to {finish}.",
    "It will not be in the clip.",
)
HANDLES = SnagKind(
    "handles-too-long",
    "stop",
    "clip",
    "Handles of {first} and {last} leave nothing of {frames} to move in.",
    "The move runs between the handles; at least two frames have to be left for it.",
)
STILL = SnagKind(
    "hardly-changes",
    "mind",
    "clip",
    "By the trial, the subject moves {change} over the whole shoot: {share} of the picture.",
    "Below three percent of the width a clip looks like a still with a fault. A longer shoot shows more.",
)
UNCULLED = SnagKind(
    "movie-cannot-be-culled",
    "mind",
    "clip",
    "{spare} of the frames are spare, but a {school} cannot be culled.",
    "The camera puts its frames together itself; a bird, a car or a gust stays in. Stills can be repaired one by one.",
)
LONG_VIDEO = SnagKind(
    "video-too-long",
    "mind",
    "clip",
    "Sped-up video of {shoot} is a lot to record.",
    "Cameras stop recording, warm up and fill the card; video suits events of half an hour and less.",
)
KINDS = (OUTSIDE, HANDLES, STILL, UNCULLED, LONG_VIDEO)

LONGEST_VIDEO_S = 1800
IN_REVERSE = Formula("(frames - frame) / rate", "the frames after it, over playback rate: it is played in reverse")
IN_CLIP = Formula("frame / rate", "the frames before it, over playback rate")
FRAME = Formula("(event - start) / interval + 1", "elapsed time over the interval; frame 1 is taken at the start")
FRAME_RAMPED = Formula("before + share + 1", "the frames before it, and how much of its slot has passed")
MOVE_FRAMES = Formula("frames - first - last", "the frames between the handles")
HANDLE = Formula("handle / rate", "frames over playback rate")
SCHOOLS = {"stills": "stills", "movie": "clip made in the camera", "video": "film that is sped up"}


def event_figures(plan: Plan, solution: Solution, times: Timeline) -> list[Figure]:
    """Where events fall in the clip, what the handles leave, what suits the subject."""
    return [*_events(plan, solution, times), *_handles(plan.clip, solution), *_suits(plan, solution)]


def event_snags(plan: Plan, solution: Solution, times: Timeline) -> list[Snag]:
    """Events outside, handles without room, a subject that hardly changes, a school that cannot be culled."""
    return [
        *_outside(plan, solution, times),
        *_no_room(plan.clip, solution),
        *_hardly_changes(plan, solution),
        *_school(plan, solution),
    ]


def _events(plan: Plan, solution: Solution, times: Timeline) -> Iterator[Figure]:
    rate = term("rate", "playback rate", solution.rate, "rate")
    for number, event in enumerate(plan.shoot.clock.events):
        at = times.frame_at(event.at.timestamp() - times.start.timestamp())
        rule, terms = _frame_rule(times, event, at)
        yield figure(f"event.{number}.frame", f"frame of {event.name}", at + 1, "", rule, *terms)
        yield _in_the_clip(plan.clip, times, number, event, at, rate)


def _in_the_clip(clip: Clip, times: Timeline, number: int, event: Event, at: float, rate: Term) -> Figure:
    """When an event comes in the clip; played in reverse, as long before its end as it comes after the start."""
    key, label = f"event.{number}.clip", f"{event.name}, in the clip"
    gone = term("frame", "frames before it", at, "frames")
    if not clip.backwards:
        return figure(key, label, at / rate.value, "s", IN_CLIP, gone, rate)
    frames = term("frames", "frames", times.frames, "frames")
    return figure(key, label, (times.frames - at) / rate.value, "s", IN_REVERSE, frames, gone, rate)


def _frame_rule(times: Timeline, event: Event, at: float) -> tuple[Formula, tuple[Term, ...]]:
    if times.even:
        start, when = at_term("start", "first frame", times.start), at_term("event", event.name, event.at)
        return FRAME, (when, start, term("interval", "interval", times.interval_s, "s"))
    before = math.floor(at)
    gone = term("before", "frames before it", before, "frames")
    return FRAME_RAMPED, (gone, term("share", "of its slot", at - before, "share"))


def _handles(clip: Clip, solution: Solution) -> Iterator[Figure]:
    if not (clip.handle_in_frames or clip.handle_out_frames):
        return
    rate = term("rate", "playback rate", solution.rate, "rate")
    ends = (("in", clip.handle_in_frames), ("out", clip.handle_out_frames))
    for end, frames in ends:
        said = term("handle", f"handle {end}", frames, "frames")
        yield figure(
            f"clip.handle_{end}", f"handle {end}, in the clip", frames / solution.rate, "s", HANDLE, said, rate
        )
    terms = (
        term("frames", "frames", solution.frames, "frames"),
        term("first", "handle in", clip.handle_in_frames, "frames"),
        term("last", "handle out", clip.handle_out_frames, "frames"),
    )
    moving = solution.frames - clip.handle_in_frames - clip.handle_out_frames
    yield figure("clip.moving", "frames that move", moving, "frames", MOVE_FRAMES, *terms)


def _suits(plan: Plan, solution: Solution) -> Iterator[Figure]:
    """The interval from a crossing, and from a trial."""
    clip = plan.clip
    if clip.crossing:
        cross, screen = clip.crossing.cross_s, clip.crossing.screen_s
        interval = starting_points.crossing_interval(cross, screen, solution.rate)
        terms = (
            term("crossing", "to cross the picture", cross, "s"),
            term("screen", "wanted on screen", screen, "s"),
            term("rate", "playback rate", solution.rate, "rate"),
        )
        yield figure("clip.crossing", "interval by the crossing", interval, "s", starting_points.CROSSING, *terms)
    if clip.trial:
        trial = clip.trial
        interval = starting_points.trial_interval(trial.apart_s, trial.moved_px, trial.step_px)
        moved, apart = (
            term("moved", "moved between them", trial.moved_px, "px"),
            term("apart", "frames apart", trial.apart_s, "s"),
        )
        step = term("step", "wanted from frame to frame", trial.step_px, "px")
        yield figure("clip.trial", "interval by the trial", interval, "s", starting_points.TRIAL, step, moved, apart)
        whole = trial.moved_px / trial.apart_s * solution.shoot
        shoot = term("shoot", "shoot length", solution.shoot, "s")
        yield figure(
            "clip.trial_change",
            "it moves over the shoot",
            whole,
            "px",
            starting_points.TRIAL_CHANGE,
            moved,
            apart,
            shoot,
        )


def _outside(plan: Plan, solution: Solution, times: Timeline) -> Iterator[Snag]:
    finish = times.clock(times.frames)
    for number, event in enumerate(plan.shoot.clock.events):
        if times.holds(event.at):
            continue
        slots = {
            "event": slot(event.name),
            "at": at_clock(event.at.timestamp(), times.start, times.zone),
            "first": slot(times.start.timestamp(), "instant"),
            "finish": at_clock(finish.timestamp(), times.start, times.zone),
        }
        fixes = [*_move_there(plan, number, solution, times), _leave_out(plan, number)]
        yield OUTSIDE.at(f"shoot.clock.events.{number}", slots, fixes)


def _move_there(plan: Plan, number: int, solution: Solution, times: Timeline) -> Iterator[Fix]:
    """Shift the whole shoot so that the event falls two thirds into it: long enough before, something left after.

    Where that would leave out another that falls into it now, so that both do; nothing where they are too far apart.
    """
    clock, event = plan.shoot.clock, plan.shoot.clock.events[number]
    inside = [one.at for one in clock.events if times.holds(one.at)]
    first, last = min([event.at, *inside]), max([event.at, *inside])
    start = instant(event.at, _whole(Fraction(-2, 3) * solution.shoot), plan.shoot.place.zone)
    said = "The shoot keeps its length; {event} falls two thirds into it."
    if not _holds(start, solution, first, last):
        between = Fraction((last - first).total_seconds())
        start = instant(first, -(solution.shoot - between) / 2, plan.shoot.place.zone)
        said = "The shoot keeps its length; {event} falls into it too."
    if not _holds(start, solution, first, last):
        return
    at = start if clock.holds == "start" else instant(start, solution.shoot, plan.shoot.place.zone)
    yield Fix(
        label=f"{'Start' if clock.holds == 'start' else 'Finish'} at {{held}}",
        consequence=said + untied_said(plan),
        slots={"held": at_clock(at.timestamp(), times.start, times.zone), "event": slot(event.name)},
        edits=(Edit(path="shoot.clock.at", value=at.isoformat()), *untied(plan)),
    )


def _holds(start: datetime, solution: Solution, first: datetime, last: datetime) -> bool:
    """Whether a shoot from a start on lasts over both moments."""
    return start <= first and (last - start).total_seconds() < solution.shoot


def _leave_out(plan: Plan, number: int) -> Fix:
    """Take the event off the clock."""
    events = [one.model_dump(mode="json") for one in plan.shoot.clock.events]
    name = events.pop(number)["name"]
    return Fix(
        label="Do without {event}",
        consequence="It is no longer on the clock of this shoot.",
        slots={"event": slot(name)},
        edits=(Edit(path="shoot.clock.events", value=events),),
    )


def _whole(seconds: Fraction) -> Fraction:
    """To the minute for a shoot of hours, exact for a short one: a start people can keep."""
    return Fraction(round(seconds / 60) * 60) if abs(seconds) > 600 else seconds


def _no_room(clip: Clip, solution: Solution) -> list[Snag]:
    first, last, frames = clip.handle_in_frames, clip.handle_out_frames, solution.frames
    if not (first or last) or frames - first - last >= 2 or frames < 2:
        return []
    slots = {"first": slot(first, "frames"), "last": slot(last, "frames"), "frames": slot(frames, "frames")}
    left = frames - 2
    fit_first = min(first * left // (first + last), frames // 10)
    fit_last = min(last * left // (first + last), frames // 10)
    fix = Fix(
        label="Handles of {fit_first} and {fit_last}",
        consequence="{moving} are left to move in.",
        slots={
            "fit_first": slot(fit_first, "frames"),
            "fit_last": slot(fit_last, "frames"),
            "moving": slot(frames - fit_first - fit_last, "frames"),
        },
        edits=(
            Edit(path="clip.handle_in_frames", value=fit_first),
            Edit(path="clip.handle_out_frames", value=fit_last),
        ),
    )
    return [HANDLES.at("clip.handle_in_frames", slots, [fix])]


def _hardly_changes(plan: Plan, solution: Solution) -> list[Snag]:
    clip = plan.clip
    change, width = change_px(plan, solution.shoot), kept(plan).width_px
    if clip.trial is None or change is None or shows(plan, solution.shoot):
        return []
    slots = {"change": slot(change, "px"), "share": slot(change / width, "share")}
    enough = Fraction(math.ceil(2 * LEAST_CHANGE * width / (clip.trial.moved_px / clip.trial.apart_s)))
    return [STILL.at("clip.trial", slots, [_long_enough(plan, enough, LEAST_CHANGE * width) or _forget_trial()])]


def _long_enough(plan: Plan, shoot: Fraction, least_px: Fraction) -> Fix | None:
    """A shoot that shows enough of the movement; rounding may ask for a longer one. None beyond twenty years."""
    trial = plan.clip.trial
    assert trial is not None
    while shoot <= LONGEST_S:
        edits = within(plan, "shoot", shoot)
        if not edits:
            return None
        after, before = shooting_of(changed(plan, edits)), shooting_of(plan)
        if after is None or before is None or spoilt(before, after):
            return None
        if trial.moved_px / trial.apart_s * after.solution.shoot >= least_px:
            return clip_fix(plan, "Watch for {longer}", edits, {"longer": slot(shoot, "s")})
        shoot *= 2
    return None


def _forget_trial() -> Fix:
    return Fix(
        label="Set the trial aside",
        consequence="A shoot that would show this movement is not to be had; choose another subject or a longer lens.",
        slots={},
        edits=(Edit(path="clip.trial", value=None),),
    )


def _school(plan: Plan, solution: Solution) -> Iterator[Snag]:
    clip = plan.clip
    stills = Fix(
        label="Take stills",
        consequence="Every frame stays a file of its own: to be repaired, culled and read at any rate.",
        slots={},
        edits=(Edit(path="clip.school", value="stills"),),
    )
    if clip.school != "stills" and clip.spare:
        slots = {"spare": slot(clip.spare, "share"), "school": slot(SCHOOLS[clip.school])}
        yield UNCULLED.at("clip.spare", slots, [stills])
    if clip.school == "video" and solution.shoot > LONGEST_VIDEO_S:
        yield LONG_VIDEO.at("clip.school", {"shoot": slot(solution.shoot, "s")}, [stills])
