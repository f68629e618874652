"""Some ninety one-line mistakes, and which tests notice each: `make mutants`.

Each is made in a copy of the checkout, and only the tests that touch it are run. A mistake that nobody notices is a
mistake that would reach a person.
"""

import os
import shutil
import subprocess
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import NamedTuple

ROOT = Path(__file__).parents[1]
CORE = "bridle/core"


class Mutant(NamedTuple):
    """What goes wrong, in which file, the line as it is and as it should not be, and the tests that touch it."""

    wrong: str
    file: str
    was: str
    now: str
    tests: tuple[str, ...]


SEEN, MOVE, RIG, BEAT, CLOCK = (f"tests.core.{name}" for name in (
    "test_told", "test_move", "test_rig", "test_beat_in_full", "test_interval_and_clock",
))  # fmt: skip
EVALUATE, FRAMES, CLIP, RUN = (f"tests.core.{name}" for name in (
    "test_evaluate", "test_frames", "test_clip", "test_run",
))  # fmt: skip
AGREE, CARD, CHAINS, MEASURING = (f"tests.core.{name}" for name in (
    "test_agree", "test_card", "test_chains", "test_measuring",
))  # fmt: skip
LEAN, FOCUSING = "tests.core.test_lean", "tests.core.test_focusing"
LIGHT, SKY, ANCHORS = (f"tests.core.test_{name}" for name in ("light", "sky", "anchors"))
LIGHT_FILES = "tests.formats.test_light_files"
PROGRAM = "tests.formats.test_drive_program"
BEGIN, SIGHT, SNAGS, STACK = (f"tests.core.{name}" for name in (
    "test_beginnings", "test_sight", "test_snags", "test_stack",
))  # fmt: skip
CLOCKS, SHELF, DRIVES, MOVING = (f"tests.core.{name}" for name in (
    "test_clocks", "test_shelf", "test_drives", "test_moving",
))  # fmt: skip
QUANTITY = "tests.core.test_quantity"
WIRED, HEARD, TRIGGER, DIAGRAM = (f"tests.core.test_{name}" for name in ("wiring", "heard", "trigger", "diagram"))
WINDOWS = "tests.core.test_windows"
STAYING, CONTROLLERS = "tests.core.test_staying", "tests.core.test_controllers"
SEASON_FILES = "tests.formats.test_season_files"
FILES, READING, PRINTS, JOBS, VIEW = (
    f"tests.prints.test_{name}" for name in ("files", "reading", "plan", "jobs", "view")
)
CUTS, WRONG_CLOCK, COPIES, SIDES, GIVEN, OLDER = (
    "tests.server.test_cuts", "tests.server.test_clock", "tests.server.test_datafolder",
    "tests.server.test_firm", "tests.server.test_given", "tests.formats.test_older",
)  # fmt: skip
SERVER = "bridle/server"
MUTANTS = (
    Mutant("a wish that was heard is heard again", f"{SERVER}/runs/book.py",
        "update(asked=now.wishes[1:])", "update(asked=now.wishes)", (CUTS,)),
    Mutant("a made file has one name for all its proofs", f"{SERVER}/prints/models.py",
        'return self.print.folder / f"{self.kind}-{self.pk}.gcode"',
        'return self.print.folder / f"{self.kind}.gcode"', (CUTS,)),
    Mutant("bytes get their name before the row says so", f"{SERVER}/prints/api.py",
        "    with transaction.atomic():\n        if Print.objects.filter(pk=kept.pk, state=\"arriving\")",
        "    kept.arriving.replace(kept.original)\n    with transaction.atomic():\n"
        "        if Print.objects.filter(pk=kept.pk, state=\"arriving\")", (CUTS,)),
    Mutant("a save's revision comes after it", f"{SERVER}/keeping.py",
        "        with transaction.atomic():\n            now = type(self)", "        if True:\n            now = type(self)",
        (CUTS,)),
    Mutant("a jump of the clock is forgotten at the next start", f"{SERVER}/house/clock.py",
        "house.jumped_ran_s, house.jumped_from, house.jumped_to = ran, house.seen_at, now",
        "house.jumped_from, house.jumped_to = house.seen_at, now", (WRONG_CLOCK,)),
    Mutant("what was written before a jump counts as written after it", f"{SERVER}/house/clock.py",
        ', f"{at_field}__gte": house.jumped_to})', "})", (WRONG_CLOCK,)),
    Mutant("a journal stays beside another database", "bridle/datafolder/copies.py",
        "        _settle(folder)\n", "", (COPIES,)),
    Mutant("copies of before a restore are thinned out", "bridle/datafolder/copies.py",
        "    if why == UPDATE:\n", "    if why:\n", (COPIES,)),
    Mutant("a copy is not tried", "bridle/datafolder/copies.py", "        tried(trial)\n", "", (COPIES,)),
    Mutant("a save goes to whatever shoot has the number", f"{SERVER}/shoots/api.py",
        "if save.identity and save.identity != shoot.identity:", "if False:", (SIDES,)),
    Mutant("as many values as somebody likes", "bridle/formats/strict_json.py",
        "    count(data)\n    return data", "    return data", (GIVEN,)),
    Mutant("a figure that changed is not told", f"{CORE}/older.py",
        "        said.append(", "        said and said.append(", (OLDER,)),
    Mutant("a stop goes back without its modes", f"{CORE}/subjects/parking/stop.py",
        'yield "M82" if stand.absolute_e else "M83"', 'yield "M83"', (FILES,)),
    Mutant("a stop forgets the file's own E", f"{CORE}/subjects/parking/stop.py",
        'yield f"G92 E{number(stand.e / unit, 7)}"', 'yield f"G92 E{number(0, 7)}"', (FILES,)),
    Mutant("a stop comes a line too early", f"{CORE}/subjects/prints/gather.py",
        "base_byte + begins[n + 1], base_line + n + 1, after[n]", "base_byte + begins[n], base_line + n, was", (FILES,)),
    Mutant("inches are taken for millimetres", f"{CORE}/subjects/prints/follow.py",
        "state[UNIT] = 25.4 if code == 700200 else 1.0", "state[UNIT] = 1.0", (FILES,)),
    Mutant("a block is taken out with the line before it", f"{CORE}/subjects/parking/blocks.py",
        "if _open_line(inside, began, altered_too):", "if not _open_line(inside, began, altered_too):", (FILES,)),
    Mutant("an edited block is taken for whole", f"{CORE}/subjects/parking/blocks.py",
        "or int(last[2], 16) != zlib.crc32(inside[:at])", "", (FILES,)),
    Mutant("corners cost nothing", f"{CORE}/subjects/prints/motion.py",
        "most = min(most, keeps) if least > 0 else 0.0", "pass", (READING,)),
    Mutant("the virtual printer never notices its switch's body", "bridle/standins/printer/virtual.py",
        "if not _touched_at(self.log, name) and", "if False and", (FILES,)),
    Mutant("a macro's text is passed over", "bridle/standins/printer/virtual.py",
        "self._obey(line, depth + 1)", "pass", (READING,)),
    Mutant("a zoom is taken for what its lens's card says", f"{CORE}/reckon/printing_view.py",
        "longest_lens(plan).focal_mm", "plan.camera.focal_mm", (VIEW,)),
    Mutant("left and right of a printer are seen alike", f"{CORE}/reckon/printing_view.py",
        '"left": (0, -1, 1, 0)', '"left": (0, 1, -1, 0)', (VIEW,)),
    Mutant("a finished part counts from its first layer on", f"{CORE}/reckon/printing_view.py",
        "heights = np.array([frames.z_mm[layer - 1]", "heights = np.array([frames.z_mm[-1]", (VIEW,)),
    Mutant("the mark is the bed and not the finished top", f"{CORE}/reckon/printing_view.py",
        "mark.z_mm - high, high", "mark.z_mm, high", (VIEW,)),
    Mutant("another file than the plan's is written into", "bridle/bench/jobs.py",
        "if file is None or file.digest != digest_of(path):", "if file is None:", (JOBS,)),
    Mutant("a second set of stops is put in silently", "bridle/bench/jobs.py",
        "if has_stops(file) and not plan.printing.second_set:", "if False:", (JOBS,)),
    Mutant("the wait is judged without the hold", f"{CORE}/reckon/printing.py",
        'STAYS = ("hold", "back off", "wait")', 'STAYS = ("wait",)', (JOBS,)),
    Mutant("what a tool's macro primes is the print's", "bridle/standins/printer/virtual.py",
        "self.sums, self.pushed = sums, pushed", "pass", (JOBS,)),
    Mutant("places scatter by shares of themselves", f"{CORE}/asks/measuring.py",
        'if read.asked.what == "click" and spread > _apart(read):', "if False:", (MEASURING,)),
    Mutant("every n-th is counted from the first layer", f"{CORE}/subjects/prints/choose.py",
        "list(range(last, min(first, last) - 1, -nth))[::-1]", "list(range(min(first, last), last + 1, nth))", (PRINTS,)),
    Mutant("stops take no time in the clip", f"{CORE}/reckon/frames/layers.py",
        "np.arange(len(called) + 1) * round(stop_s * MS)", "np.arange(len(called) + 1) * 0", (PRINTS,)),
    Mutant("a phone is fired by what moves it", f"{CORE}/reckon/clocks.py",
        "return first_of(plan.kit.copies, Phone) is None", "return True", (CLOCKS,)),
    Mutant("two apps are one clock", f"{CORE}/reckon/clocks.py",
        'one.card.drive.TOLD == other.card.drive.TOLD == "program"', "one.card.drive.TOLD == other.card.drive.TOLD",
        (CLOCKS,)),
    Mutant("nobody is called before a drive has to be stopped", f"{CORE}/chapters/review/positions.py",
        "at_clock(end - ALARM_S", "at_clock(end", (CLOCKS,)),
    Mutant("a bought mover goes faster than its menu", f"{CORE}/subjects/motion/drives/bought.py",
        "number_step, self._least()), self.most_number)", "number_step, self._least()), 1e9)", (DRIVES,)),
    Mutant("a dial of distances counts the frames, not the moves between", f"{CORE}/subjects/motion/drives/interface.py",
        "return max(0, self.frames - 1)", "return self.frames", (DRIVES,)),
    Mutant("a spring has the top speed of its card", f"{CORE}/reckon/parts.py",
        "if field not in card.drive.MINDS:", "if field in card.drive.MINDS:", (CLOCKS, MOVING)),
    Mutant("what somebody has typed is usual", f"{CORE}/asks/shelf.py",
        "known = {*card.typed, *(", "known = {*(", (SHELF,)),
    Mutant("another drive keeps what was usual for the first", f"{CORE}/asks/shelf.py",
        "and value != usual[name]}", "}", (SHELF,)),
    Mutant("a mark to the left stands to the right", f"{CORE}/asks/polar.py",
        "return math.degrees(math.atan2(mark.x_mm, mark.y_mm))", "return math.degrees(math.atan2(mark.y_mm, mark.x_mm))",
        (MOVING,)),
    Mutant("a sentence has one digit too few", f"{CORE}/quantity.py",
        "SPOKEN - 1 - math.floor", "SPOKEN - 2 - math.floor", (QUANTITY,)),
    Mutant("a camera with its own lens takes another one", f"{CORE}/asks/chain.py",
        "if isinstance(standing, Lens) and has_own_lens(fresh):", "if False:", (MOVING,)),
    Mutant("a mark taken away leaves another one followed", f"{CORE}/asks/beginnings.py",
        "value=follow.mark - 1", "value=follow.mark", (BEGIN,)),
    Mutant("a rig to begin with is put together in the order of the shelf", f"{CORE}/asks/chain.py",
        "for sort in USUAL[kind] if sort in sorts", "for sort in sorts if sort in USUAL[kind]", (BEGIN,)),
    Mutant("an interval that is too long for its subject suits it", f"{CORE}/chapters/clip/chapter.py",
        "interval > point.high_s", "interval < point.high_s", (CLOCK,)),
    Mutant("the lag is left out of where a visit begins", f"{CORE}/reckon/orders.py",
        "each = float(reckoned.beat.heard_s) + busy_s", "each = busy_s", (SEEN,)),
    Mutant("the last frame on the card is off by one", f"{CORE}/chapters/review/sheets.py",
        "times.unix_s(times.frames - 1)", "times.unix_s(times.frames)", (SEEN,)),
    Mutant("the margin lies inside the beat", f"{CORE}/chapters/beat/ring.py",
        "max(reckoned.need_s, free)", "reckoned.need_s", (SEEN,)),
    Mutant("the clock of a hand mark is that of its own frame", f"{CORE}/lists/hand_marks.py",
        "times.clock(max(frame - 1, 0))", "times.clock(frame)", (SEEN,)),
    Mutant("the longest run of a timer is turned round", f"{CORE}/chapters/trigger/timer.py",
        "solution.shoot > trigger.longest_run_s", "solution.shoot < trigger.longest_run_s", (SEEN, EVALUATE)),
    Mutant("the shift is a share of the height", f"{CORE}/chapters/move/passing.py",
        "    width = kept(plan).width_px\n    yield from _figures", "    width = kept(plan).height_px\n    yield from _figures",
        (SEEN,)),
    Mutant("the time map is told in frames", f"{CORE}/chapters/move/drawn.py",
        "elapsed_s=tuple(np.round(seconds, 6).tolist())", "elapsed_s=tuple(np.round(frames, 6).tolist())", (SEEN, EVALUATE)),
    Mutant("the last clock of a sight is its first", f"{CORE}/reckon/sights.py",
        "times.unix_s(last))", "times.unix_s(first))", (SEEN,)),
    Mutant("processing is dropped from the programme", f"{CORE}/run/programme.py",
        "processes_s=orders.processing_s", "processes_s=orders.busy_s * 0", (SEEN, RUN)),
    Mutant("the carriage's ends are swapped", f"{CORE}/reckon/loads.py",
        "return stack.carriage_x(first, low), stack.carriage_x(last, low)",
        "return stack.carriage_x(last, low), stack.carriage_x(first, low)", (SEEN, RIG)),
    Mutant("a night counts as room of the frame before it", f"{CORE}/reckon/frames/windows.py",
        "rooms_s=rooms", "rooms_s=np.diff(np.concatenate(starts), append=float(solution.shoot))", (FRAMES,)),
    Mutant("a window has a frame at its closing as well", f"{CORE}/subjects/time/windows.py",
        "else -int(-length_s // every_s)", "else int(length_s // every_s) + 1", (WINDOWS,)),
    Mutant("the second rule has what both claim", f"{CORE}/subjects/time/windows.py",
        "left = list(without(own, taken))", "left = own", (WINDOWS,)),
    Mutant("a closing weekday is the one a week before", f"{CORE}/subjects/time/windows.py",
        "7 if ahead == 0 and past_midnight else ahead", "ahead", (WINDOWS,)),
    Mutant("layers are counted from the one after", f"{CORE}/reckon/frames/layers.py",
        "done[np.array(chosen(frames)) - 1]", "done[np.array(chosen(frames)) - 2]", (FRAMES,)),
    Mutant("culled frames do not shorten the clip", f"{CORE}/reckon/frames/found.py",
        "rate, kept / rate,", "rate, frames / rate,", (SEEN, CLOCK)),
    Mutant("a held finish is taken for the start", f"{CORE}/reckon/timeline.py",
        "else -shoot_s, zone)", "else shoot_s * 0, zone)", (CLOCK,)),
    Mutant("the ease out is as long as the ease in", f"{CORE}/subjects/motion/easing.py",
        "falling = _ramp(np.minimum(left, ease.frames_out), ease.frames_out,",
        "falling = _ramp(np.minimum(left, ease.frames_in or 1), ease.frames_in or 1,", (MOVE, "tests.core.test_beat_and_move")),
    Mutant("backlash is taken up on the way up", f"{CORE}/reckon/orders.py",
        "np.where(heading[last] < 0, targets", "np.where(heading[last] > 0, targets", (PROGRAM,)),
    Mutant("a followed mark is off by the wrong sign", f"{CORE}/reckon/poses.py",
        '"left third": -1 / 6', '"left third": 1 / 6', (MOVE,)),
    Mutant("a slope does not lift the camera", f"{CORE}/reckon/poses.py",
        'z=each["slide"] * math.sin(slope)', 'z=each["slide"] * 0 * slope', (MOVE,)),
    Mutant("tilt turns down", f"{CORE}/subjects/optics/projecting.py",
        "ahead, up = level * cos_t + dz * sin_t, dz * cos_t - level * sin_t",
        "ahead, up = level * cos_t - dz * sin_t, dz * cos_t + level * sin_t", (MOVE,)),
    Mutant("the sun goes the other way round", f"{CORE}/subjects/light/sky.py",
        "-np.cos(up) * np.sin(hour), north", "np.cos(up) * np.sin(hour), north", (MOVE,)),
    Mutant("the level error leans the wrong way", f"{CORE}/reckon/loads.py",
        "centre.x_mm + lean - right)", "centre.x_mm - lean - right)", (SEEN, RIG)),
    Mutant("a part carries itself", f"{CORE}/reckon/stack.py",
        "if part.index > index) if standing", "if part.index >= index) if standing", (SEEN, RIG)),
    Mutant("the buffer forgets the picture being written", f"{CORE}/subjects/time/buffer.py",
        "written_at = at + write", "written_at = at", (BEAT,)),
    Mutant("a frame is lost whole", f"{CORE}/subjects/time/buffer.py",
        "refused += 1\n                continue", "refused += 1\n                break", (BEAT, SEEN)),
    Mutant("the program moves while the camera still wakes", "bridle/formats/drive_program.py",
        "(0.0 if say.visit[picture] else float(plan.beat.ready_s))", "0.0", (AGREE, PROGRAM)),
    Mutant("waking is forgotten within a round", f"{CORE}/reckon/orders.py",
        "each[:1] += float(reckoned.beat.ready_s)", "each[:1] += 0.0", (AGREE,)),
    Mutant("a followed pan stands on the card where it was typed", f"{CORE}/chapters/review/positions.py",
        "float(shooting.positions[axis.name][frame])", "float(shooting.positions[axis.name][0 * frame])", (CARD,)),
    Mutant("play stays in the scale", f"{CORE}/asks/measuring.py",
        "offset = found if found < min(row[1] for row in rows) else 0.0", "offset = 0.0", (MEASURING,)),
    Mutant("any scatter is explained", f"{CORE}/asks/measuring.py",
        "if spread <= limit * mean:", "if True:", (MEASURING,)),
    Mutant("a rail nods where it looks across", f"{CORE}/reckon/bending.py",
        "self.falls_deg * np.sin", "self.falls_deg * np.cos", (RIG,)),
    Mutant("a near miss stops a shoot", f"{CORE}/chapters/rig/own_pace.py",
        "NEARLY if off <= SEEN", "NEARLY if off <= 0", (SNAGS, RIG)),
    Mutant("a drive ends where it was planned to", f"{CORE}/chapters/rig/own_pace.py",
        "return asked.wanted.start + way * does", "return asked.wanted.start + asked.wanted.sweep", (CARD, SNAGS)),
    Mutant("a fix foretells nothing", f"{CORE}/foreseen.py",
        "if snag.severity in TOLD", "if snag.severity not in TOLD", (CHAINS,)),
    Mutant("a levelled picture is cropped twice", f"{CORE}/subjects/optics/cropping.py",
        "size = min(width / (across * c + upright * s)", "size = 0.97 * min(width / (across * c + upright * s)", (MOVE,)),
    Mutant("a stack waits for no card", f"{CORE}/reckon/exposed.py",
        "between = max(refocus, storing)", "between = refocus", (BEAT, SEEN)),
    Mutant("a stack starts where the last one was focused", f"{CORE}/subjects/optics/lens.py",
        "math.log(hyper_mm / (hyper_mm - 2 * focal_mm))", "math.log(hyper_mm / (hyper_mm - focal_mm))", (BEAT, SEEN)),
    Mutant("settling is counted where nothing moved", f"{CORE}/reckon/travel.py",
        "axis=0) > 0 if steps else", "axis=0) > -1 if steps else", (SEEN, BEAT)),
    Mutant("the interval is dialled up instead of down", f"{CORE}/subjects/time/sentence.py",
        'return floor_to(holds["shoot"] / frames, step) or step', 'return floor_to(holds["shoot"] / frames, step) + step',
        (CLIP,)),
    Mutant("a spring turns the other way", f"{CORE}/subjects/motion/drives/clockwork.py",
        "return 1 if self.clockwise else -1", "return -1 if self.clockwise else 1", (EVALUATE, RIG)),
    Mutant("a dial is read from its far side", f"{CORE}/subjects/motion/drives/dial.py",
        "return i, low + share * (high - low)", "return i, high - share * (high - low)", (RIG,)),
    Mutant("a crop leaves what is kept", f"{CORE}/reckon/crops.py",
        "return min(max(crop.across, half), 1 - half)", "return crop.across", (MOVE,)),
    Mutant("the programme fires before the rig has settled", "bridle/formats/drive_program.py",
        "wait = float(fires[picture + 1]) - spent", "wait = float(fires[picture + 1]) - spent - 0.5", (PROGRAM,)),
    Mutant("frames of the table count from nought", "bridle/formats/frame_table.py",
        "yield [str(frame + 1), clock", "yield [str(frame), clock", ("tests.formats",)),
    Mutant("what lies far behind a followed mark is not looked at", f"{CORE}/reckon/passing.py",
        "for left_out in ((), ALONG) if any(", "for left_out in ((),) if any(", (SIGHT,)),
    Mutant("only the middle of the picture is judged", f"{CORE}/reckon/passing.py",
        "return Shift(px.max(axis=0),", "return Shift(px[0],", (SIGHT,)),
    Mutant("a mark that nobody sees counts as near", f"{CORE}/reckon/passing.py",
        "np.where(each.inside, each.ahead, np.inf)", "np.where(each.ahead > 0, each.ahead, np.inf)", (SIGHT,)),
    Mutant("a longer slot smears by more", f"{CORE}/chapters/beat/smear.py",
        "place.px * open_s / slot_s", "place.px * open_s * slot_s / 100", (SIGHT, SNAGS)),
    Mutant("a zoom is as long as its shortest", f"{CORE}/reckon/picture.py",
        "return min(at), max(at)", "return min(at), min(at)", (SIGHT,)),
    Mutant("every picture of a row has to see a mark", f"{CORE}/reckon/sights.py",
        "here if inside is None else inside | here", "here if inside is None else inside & here", (SIGHT,)),
    Mutant("a speed-up is off by as much as one likes", f"{CORE}/subjects/time/sentence.py",
        "> (RATIO_TOLERANCE + more) * made", "> (1 + more) * made", (CLIP,)),
    Mutant("the step of the interval is called whole frames", f"{CORE}/chapters/clip/roundings.py",
        '"interval step" if stepped else "whole frames"', '"whole frames"', (CLIP,)),
    Mutant("a shorter way is offered where it tips all the same", f"{CORE}/chapters/rig/tipping.py",
        "if any(over_mm(plan, stack, carriage) > 0 for carriage in ends):", "if not ends:", (STACK,)),
    Mutant("a single frame stands at the end", f"{CORE}/reckon/schedule.py",
        "last = len(self.arrive) - 1 if self.steps else 0", "last = len(self.arrive) - 1", (MOVE,)),
    Mutant("a mark above the picture counts as followed", f"{CORE}/reckon/tracking.py",
        "int(np.argmax(out)) if out.any() else None", "None", (SIGHT, SNAGS)),
    Mutant("the sun is fled and the event with it", f"{CORE}/reckon/timeline.py",
        "return max(after) - float(self.end_s) + 1 / MS, min(after)", "return -math.inf, math.inf", (SIGHT,)),
    Mutant("a pan leans the other way", f"{CORE}/subjects/optics/projecting.py",
        "return self._turned(dx, dy, dz, math.radians(self.by))", "return self._turned(dx, dy, dz, -math.radians(self.by))",
        (LEAN,)),
    Mutant("a leaned pan follows as if it stood upright", f"{CORE}/reckon/poses.py",
        "right, away, up = ways if at.leaned is None else at.leaned.into_head(*ways)", "right, away, up = ways", (LEAN,)),
    Mutant("a leaned pan on a slope leans uphill", f"{CORE}/chapters/rig/leaning.py",
        "-90.0 if slope > 0 else 90.0", "90.0 if slope > 0 else -90.0", (LEAN,)),
    Mutant("the ring goes through the stack from far to near", f"{CORE}/reckon/travel.py",
        "ring_turns(focus, np.array(stack_mm))", "ring_turns(focus, np.array(stack_mm[::-1]))", (FOCUSING,)),
    Mutant("a ring that stands still at a station's picture", f"{CORE}/reckon/travel.py",
        "np.repeat(grid, len(stack_mm), axis=1)", "np.tile(grid, len(stack_mm))", (FOCUSING,)),
    Mutant("between positions of a stack the whole rig settles", f"{CORE}/reckon/travel.py",
        "np.where(travels > 0, ring, 0.0))", "np.where(travels > 0, rig, 0.0))", (FOCUSING,)),
    Mutant("what is late does not take the grid with it", f"{CORE}/reckon/firing.py",
        "grid += max(0.0, ready - due) if ready > due + LATE_S else 0.0", "grid += 0.0", (AGREE,)),
    Mutant("a written feed leaves out a little of each slot", "bridle/formats/drive_program.py",
        "(say.end_s if last else float(say.due_s[picture + 1])) - spent",
        "(say.end_s if last else float(say.due_s[picture + 1])) - float(say.due_s[picture])", (PROGRAM, AGREE)),
    Mutant("places of a round are due as the tightest cycle has them", f"{CORE}/reckon/orders.py",
        "starts_s(tightest, travels, open_.busy_s, open_.processing_s)", "visit_starts(tightest)[np.newaxis, :]", (SEEN,)),
    Mutant("float noise picks the frame that is named", f"{CORE}/subjects/numbers/rounding.py",
        "values >= most - GUARD * abs(most)", "values >= most", ("tests.core.test_beat_and_move",)),
    Mutant("the ramp goes against the light", f"{CORE}/subjects/light/ramp.py",
        "np.ceil(-wanted_ev * within.a_stop - 0.5 - NOISE)", "np.ceil(wanted_ev * within.a_stop - 0.5 - NOISE)", (LIGHT,)),
    Mutant("the slowest shutter forgets what the beat leaves", f"{CORE}/subjects/light/ramp.py",
        "np.clip(longest, shutter.low, shutter.high)", "np.full(frames, shutter.high)", (LIGHT,)),
    Mutant("thirty seconds are thirty", f"{CORE}/subjects/light/dials.py",
        "return float(2.0**stops) * (100.0", "return float(round(2.0**stops, 1)) * (100.0", (LIGHT,)),
    Mutant("cloud dims the lamps", f"{CORE}/subjects/light/illuminance.py",
        "(sun + moon) * 2.0 ** -np.asarray(cloud_stops) + town_lx", "(sun + moon + town_lx) * 2.0 ** -np.asarray(cloud_stops)",
        (LIGHT,)),
    Mutant("the half moon is half as bright as the full one", f"{CORE}/subjects/light/illuminance.py",
        "10 ** (-0.4 * (0.026 * phase_deg + 4e-9 * phase_deg**4))", "1 - phase_deg / 180", (LIGHT,)),
    Mutant("a night looks brighter instead of darker", f"{CORE}/reckon/scene.py",
        "wanted = ev + light.night_stops", "wanted = ev - light.night_stops", (LIGHT,)),
    Mutant("the curve goes through the first test alone", f"{CORE}/reckon/scene.py",
        "sum(one.off for one in tested) / len(tested) if", "tested[0].off if", (LIGHT,)),
    Mutant("stars are looked for in the middle of the picture alone", f"{CORE}/reckon/slowest.py",
        "GRID = np.linspace(-1, 1, 5)", "GRID = np.linspace(0, 0, 1)", (LIGHT,)),
    Mutant("every frame is exposed as the first one", f"{CORE}/reckon/orders.py",
        "np.broadcast_to(open_.busy_s, times.frames).repeat(visits)",
        "np.full(times.frames * visits, open_.busy_s[0])", (LIGHT,)),
    Mutant("smear is judged where the shift alone is worst", f"{CORE}/chapters/beat/smear.py",
        "worst, middle = first_peak(shift.px * open_s / rooms)", "worst, middle = first_peak(shift.px / rooms)", (LIGHT,)),
    Mutant("the moon is seen from the middle of the earth", f"{CORE}/subjects/light/sky.py",
        "at.distance * np.sin(altitude) - 1", "at.distance * np.sin(altitude)", (SKY,)),
    Mutant("what only just rises is missed", f"{CORE}/subjects/light/crossings.py",
        "return all_at[order], np.concatenate((y, over(tops)))[order]", "return at, y", (SKY,)),
    Mutant("an hour before is an hour after", f"{CORE}/plan/anchors.py",
        '-seconds if found[2] == "before" else seconds', "seconds", (ANCHORS,)),
    Mutant("west is east", f"{CORE}/coordinates.py",
        '"s": -1, "w": -1', '"s": -1, "w": 1', (LIGHT_FILES,)),
    Mutant("what is left for the edit is taken away in it", f"{CORE}/reckon/settings.py",
        "settings.ev100 + density - wanted_ev)", "wanted_ev - settings.ev100 - density)", (LIGHT, LIGHT_FILES)),
    Mutant("the weather comes out the other way round", "bridle/standins/weather.py",
        "exposed.bright + scene.ev - shooting.scene.ev", "exposed.bright - scene.ev + shooting.scene.ev",
        ("tests.server.test_light",)),
    Mutant("the normally closed contact fires", f"{CORE}/reckon/wiring.py",
        'return "source.open", ("source.common",), None', 'return "source.closed", ("source.common",), None', (WIRED,)),
    Mutant("a light conducts both ways", f"{CORE}/subjects/circuits/network.py",
        "return across > one.volts if not was", "return abs(across) > one.volts if not was", (WIRED,)),
    Mutant("half of the voltage counts as closed", f"{CORE}/reckon/hearing.py",
        "CLOSED_BELOW = 0.3", "CLOSED_BELOW = 0.99", (WIRED,)),
    Mutant("a relay pulls in at any current", f"{CORE}/reckon/circuit.py", "PULLS_IN = 0.75", "PULLS_IN = 0.1", (WIRED,)),
    Mutant("the half press is a full one", f"{CORE}/reckon/circuit.py",
        'yield Supply("source.pin", "source.ground", on if stage == "full" else 0.0',
        'yield Supply("source.pin", "source.ground", on if stage != "rest" else 0.0', (WIRED,)),
    Mutant("any press is long enough", "bridle/standins/listener.py",
        "return bool(signal.fires_on) or lasts >= signal.least_s - 1e-9", "return True", (HEARD,)),
    Mutant("a camera never sleeps", "bridle/standins/listener.py",
        "return first + signal.wake_s", "return first", (HEARD,)),
    Mutant("a camera is never busy", "bridle/standins/listener.py", "edge < self.free_s - 1e-9", "False", (HEARD,)),
    Mutant("a press that brought nothing counts as a frame", f"{CORE}/run/machine.py",
        "missed=state.missed + 1, in_a_row", "taken=state.taken + 1, in_a_row", (HEARD,)),
    Mutant("the pass mark forgets how sure it is to be", f"{CORE}/reckon/tested.py",
        "math.log(1 - certainty)", "math.log(1 - 0.5)", (TRIGGER,)),
    Mutant("a test stays good whatever is soldered", f"{CORE}/reckon/tested.py",
        "if last.of and last.of != digest:", "if False:", (TRIGGER,)),
    Mutant("a lamp that is off for the frame hangs on the open contact", f"{CORE}/chapters/trigger/lamp_circuits.py",
        'contact = "closed" if use.lit == "between frames" else "open"', 'contact = "open"', (DIAGRAM,)),
    Mutant("two nets share a track", f"{CORE}/chapters/trigger/layout.py",
        "self.x + PAD + TRACK * self.tracks.index(net)", "self.x + PAD", (DIAGRAM,)),
    Mutant("the ground is lifted by half the wire", f"{CORE}/chapters/trigger/circuits.py",
        "length = chain.ground_mm / 1000", "length = chain.ground_mm / 2000", (SNAGS,)),
    Mutant("the lamps' warm-up is no part of the beat", f"{CORE}/plan/beat.py",
        "return max(self.wake_s, self.half_s, self.warm_s)", "return max(self.wake_s, self.half_s)", (SNAGS, TRIGGER)),
    Mutant("a wired test counts a relay's way in, not out", f"{CORE}/reckon/calls.py",
        "float(coupling.release_s - plan.beat.couple_s)", "float(-plan.beat.couple_s)", (TRIGGER,)),
    Mutant("a card is never swapped in time", f"{CORE}/reckon/season/visits.py",
        "at = int(np.searchsorted(hours.starts_s, done - hours.start_s)) + most",
        "at = int(np.searchsorted(hours.starts_s, done - hours.start_s)) + most + 1", (STAYING,)),
    Mutant("a visit is put off beyond what is due", "bridle/core/subjects/time/visits.py",
        "at = bisect_right(moments, due)", "at = min(len(moments), bisect_right(moments, due) + 1)", (STAYING,)),
    Mutant("a battery is charged beyond full", "bridle/core/subjects/power/charge.py",
        "elif level > full:", "elif level > 2 * full:", (STAYING,)),
    Mutant("the cloudy days are any days", f"{CORE}/reckon/season/power.py",
        "return int(begins[int(np.lexsort((lowest, emptied))[0])])", "return 0", (STAYING,)),
    Mutant("a panel looks the other way", "bridle/core/subjects/power/panel.py",
        "np.cos(np.radians(azimuth_deg - toward_deg))", "np.cos(np.radians(azimuth_deg + toward_deg))", (STAYING,)),
    Mutant("a controller's last from–to is cut short", f"{CORE}/reckon/season/told.py",
        "late = -(-every // (2 * MIN_S))", "late = 0", (CONTROLLERS,)),
    Mutant("a clock that is not put back is taken to be", f"{CORE}/reckon/season/told.py",
        'offset = None if schedule.follows_change == "yes" else _offset_s(low, zone)', "offset = None", (CONTROLLERS,)),
    Mutant("a calendar opens windows on days off", "bridle/formats/season_calendar.py",
        'event.add("exdate", at(day))', "pass", (SEASON_FILES,)),
    Mutant("a held clip comes out shorter", f"{CORE}/reckon/frames/windows.py",
        "return every_for(plan, _shot_for(plan, held[\"clip\"]), at_least=True)",
        "return every_for(plan, _shot_for(plan, held[\"clip\"]))", (WINDOWS,)),
    Mutant("a full card takes another frame", "bridle/standins/site.py",
        "self.fill >= 1 else", "self.fill >= 2 else", ("tests.server.test_site",)),
    Mutant("what an alder grows is a year's", f"{CORE}/chapters/season/in_view.py",
        "MONTH_S = 365.25 / 12 * DAY_S", "MONTH_S = 365.25 * DAY_S", ("tests.core.test_aim",)),
)  # fmt: skip


def noticed(mutant: Mutant) -> list[str]:
    """The tests that fail with the mistake in place. Raises ValueError where the line is not there once."""
    with TemporaryDirectory() as folder:
        copy = Path(folder) / "bridle"
        shutil.copytree(ROOT, copy, ignore=shutil.ignore_patterns(".git", ".venv", "node_modules", "var", ".stamps"))
        file = copy / mutant.file
        text = file.read_text(encoding="utf-8")
        if text.count(mutant.was) != 1:
            raise ValueError(f"{mutant.file} has “{mutant.was}” {text.count(mutant.was)} times")
        file.write_text(text.replace(mutant.was, mutant.now), encoding="utf-8")
        command = [sys.executable, "manage.py", "test", "--noinput", "--failfast", *mutant.tests]
        environment = {**os.environ, "PYTHONPATH": str(copy), "BRIDLE_DATA": folder}
        ran = subprocess.run(command, cwd=copy, env=environment, capture_output=True, text=True)
    lines = (ran.stdout + ran.stderr).splitlines()
    return [line.split()[1] for line in lines if line.startswith(("FAIL: ", "ERROR: "))]


def main() -> int:
    """Try them all, two at a time; 0 where all are noticed."""
    began, missed = time.monotonic(), 0
    with ThreadPoolExecutor(os.cpu_count() or 1) as pool:
        for number, (mutant, tests) in enumerate(zip(MUTANTS, pool.map(noticed, MUTANTS), strict=True), 1):
            missed += not tests
            print(f"{number:2} {mutant.wrong}: {', '.join(dict.fromkeys(tests)) or 'NOBODY NOTICES'}", flush=True)
    print(f"{len(MUTANTS) - missed} of {len(MUTANTS)} noticed, in {time.monotonic() - began:.0f} s")
    return 1 if missed else 0


if __name__ == "__main__":
    sys.exit(main())
