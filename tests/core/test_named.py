"""Every edit of a fix that touches what somebody typed is named in its words."""

import re
from collections.abc import Iterator, Sequence
from typing import Any
from unittest import TestCase

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply, dump
from bridle.core.plan.rig import Axis
from bridle.core.reckon.parts import bound
from bridle.core.snag import Fix, Snag, fill
from tests.core.test_ready import DEMOS
from tests.core.test_trigger import demo
from tests.provoked import HEAD, PROVOKE, following, provoked
from tests.strategies import copies, fitted

# Words that name all axes at once.
WHOLE = r"leave the camera still|last framing|from its end|straight from the first|first and the last only"
# Where something is written, and the words of which one has to stand in the label or in what it says.
NAMED: tuple[tuple[str, str], ...] = (
    (r"clip\.pegs", r"of clip|hold |on site|about \d+ frames"),
    (r"clip\.handle_", "handle"),
    (r"clip\.backwards", "reverse"),
    (r"clip\.called_by", "clock call"),
    (r"clip\.school", "take stills"),
    (r"clip\.interval_step_s", "steps|timer"),
    (r"frames\.blend_frames", "blend"),
    (r"frames\.segments", "segment"),
    (r"frames\.equal_mm", "height"),
    (r"frames\.(first|last)_layer", "layers|by the clock"),
    (r"frames\.(rules|off)", "rule|every day|days off|clock"),
    (r"frames\.", "clock"),
    (r"shoot\.kind", "no longer one that moves"),
    (r"shoot\.clock\.(at|holds)$", "start at|shoot .* (later|earlier)|finish at"),
    (r"shoot\.clock\.until", "of clip|on site"),
    (r"shoot\.clock\.tied", "hour|no longer tied"),
    (r"shoot\.clock\.events", "do without"),
    (r"beat\.school", "shoot, move, shoot|move all the time"),
    (r"beat\.exposure_s", "expose"),
    (r"beat\.bracket_times_s", "bracket"),
    (r"beat\.bracket_(frames|step_stops)", "exposure a frame|apart"),
    (r"beat\.noise_reduction", "switch it off"),
    (r"beat\.stack", "stack"),
    (r"beat\.uncoupled", "two starts|tie them|clocks that keep"),
    (r"beat\.tied", "tie them"),
    (r"beat\.(press_s|half_s)", "press"),
    (r"beat\.warm_s", "beat"),
    (r"camera\.aperture", "f/|aperture"),
    (r"camera\.iso", "iso"),
    (r"camera\.upright", "upright"),
    (r"picture\.shape", "clip becomes upright"),
    (r"picture\.width_px", "deliver"),
    (r"picture\.reserve", "keep .* side"),
    (r"light\.school", "follow the light|by itself|throughout|whole shoot"),
    (r"light\.order", "aperture"),
    (r"light\.step", "steps of"),
    (r"light\.iso_", "iso"),
    (r"light\.shutter_", "expose"),
    (r"light\.aperture_", "open|close"),
    (r"light\.densities", "filter|leave it out"),
    (r"light\.(over|under)_stops", "too bright"),
    (r"light\.proofs", "leave out"),
    (r"light\.(stars_px)", "stars"),
    (r"light\.night_stops", "night"),
    (r"light\.daylight", "daylight"),
    (r"light\.heater", "warm"),
    (r"move\.ease_", "ease"),
    (r"move\.follow\.every_frame", "every frame|no longer followed|keyframes only|points at|both ends|follow nothing"),
    (r"move\.follow", "follow"),
    (r"move\.visits", "round|left out|closer|row|pair|station"),
    (r"move\.marks\.\d+\.cue|move\.marks\.\d+\.form", "cue list"),
    (r"move\.marks\.\d+\.aimed", "aims"),
    (r"move\.marks\.\d+\.body", "fixed direction"),
    (r"move\.marks", "mark|put it|part|something"),
    (r"move\.(legs)", "straight|ways back"),
    (r"move\.passes", "takes as much longer"),
    (r"move\.live_s", "take .* for it"),
    (r"move\.post", "crop"),
    (r"move\.keyframes\.\d+\.(when|hold_frames|passing)", rf"spread|{WHOLE}"),
    (r"rig\.normal_bearing_deg", "face"),
    (r"rig\.axes\.\d+\.(low|high)", "slide no further"),
    (r"rig\.axes\.\d+\.top_speed", "count on"),
    (r"rig\.axes\.\d+\.lean", "lean|upright"),
    (r"rig\.axes\.\d+\.hung", "upside down"),
    (r"rig\.axes\.\d+\.letter", "letters"),
    (r"rig\.axes\.\d+\.ring", "marks of"),
    (r"rig\.standing\.level_error_deg", "level"),
    (r"rig\.standing\.slope_deg", "lower the rail"),
    (r"rig\.lead", "take"),
    (r"trigger\.joins", "join"),
    (r"trigger\.switch", "printed on it"),
    (r"trigger\.pads", "own button"),
    (r"kit\.copies\.\d+\.card\.hears", "headset|socket"),
    (r"kit\.copies\.\d+\.card\.fires_on", "volume up"),
    (r"trigger\.pin", "use "),
    (r"trigger\.ground_", "wire"),
    (r"trigger\.keep_awake_s", "awake"),
    (r"trigger\.dwell_s", "wait"),
    (r"trigger\.autofocus", "focus"),
    (r"trigger\.stabiliser", "switch it off"),
    (r"trigger\.lamps\.\d+\.levels", "its levels|light it at"),
    (r"trigger\.lamps", "switch|leave it on|leave the lamps on"),
    (r"trigger\.distance_mm", "stand"),
    (r"printing\.by", "changed file"),
    (r"printing\.file", "take this file out"),
    (r"printing\.(second_set|meant)", "beside them|meant|watched|to be so|seen|the switch|strike|tower|goes on"),
    (r"printing\.distance_mm", "away"),
    (r"printing\.stop\.back_mm", "filament"),
    (r"printing\.stop\.raise_mm", "raise|layer's height"),
    (r"printing\.stop\.where", "end of the layer"),
    (r"printing\.stop\.settle_s", "wait"),
    (r"printing\.stop\.over_mm", "push"),
    (r"printing\.stop\.off_mm", "back the head off"),
    (r"printing\.stop\.park_", "park at"),
    (r"printing\.", "by the clock"),
    (r"season\.powering\.timer", "timer"),
    (r"season\.powering\.heater", "heater"),
    (r"season\.visiting", "visit|any day|every two weeks"),
    (r"season\.obstacles", "belongs"),
    (r"season\.", "usual"),
)  # fmt: skip


def leaves(value: Any, path: str = "") -> Iterator[tuple[str, Any]]:
    """Every plain value of a plan, by its place; a list by its length too."""
    if isinstance(value, dict):
        for key, one in value.items():
            yield from leaves(one, f"{path}.{key}" if path else key)
    elif isinstance(value, list):
        yield f"{path}.#", len(value)
        for number, one in enumerate(value):
            yield from leaves(one, f"{path}.{number}")
    else:
        yield path, value


def written(plan: Plan, fix: Fix) -> set[str]:
    """The places at which a fix writes something else than stood there, and that do not follow from a card."""
    after = apply(plan, list(fix.edits))[0]
    was, now = dict(leaves(dump(plan))), dict(leaves(dump(after)))
    from_cards = {link.path for link in bound(after.kit.copies, after.rig.axes)} if after.kit != plan.kit else set()
    return {
        place
        for place in was.keys() | {place for place in now if place.endswith("#")}
        if was.get(place) != now.get(place) and not place.startswith("kit.") and place not in from_cards
    }


def unnamed(plan: Plan, fix: Fix) -> set[str]:
    """The places that a fix writes and does not name."""
    said = f"{fill(fix.label, fix.slots)} {fill(fix.consequence, fix.slots)}".lower()
    places = written(plan, fix)
    if "move.keyframes.#" in places:
        ends = {f"move.keyframes.0.{field}" for field in _ends_that_move(plan, fix)}
        places = {place for place in places if not place.startswith("move.keyframes")} | {"move.keyframes.#"} | ends
    return {place for place in places if not re.search(_words(place), said)}


def _ends_that_move(plan: Plan, fix: Fix) -> set[str]:
    """Which figures the first or the last keyframe has otherwise, where there are more or fewer of them."""
    move = apply(plan, list(fix.edits))[0].move
    pairs = ((plan.move.start, move.start), (plan.move.end, move.end))
    return {
        field for was, now in pairs for field in UNITS_OF
        if abs((getattr(was, field) or 0.0) - (getattr(now, field) or 0.0)) > 5e-3
    }  # fmt: skip


UNITS_OF = ("slide_mm", "pan_deg", "tilt_deg", "roll_deg", "focus_mm", "zoom_mm")


def _words(place: str) -> str:
    if place == "move.keyframes.#":
        return f"keyframe|{WHOLE}"
    if axis := re.fullmatch(r"move\.(?:keyframes|visits\.stations)\.\d+\.(\w+)_(?:mm|deg)", place):
        return rf"\b{axis[1]}\b|{WHOLE}" + (r"|one focus" if axis[1] == "focus" else "") + (
            r"|tilt (up|down|to)" if axis[1] == "tilt" else "")  # fmt: skip
    return next((words for where, words in NAMED if re.match(where, place)), "nothing says what this is")


TILT = Axis(name="tilt", kind="rotary", low=-45, high=60, top_speed=12, acceleration=30)


def with_more_to_lose(plan: Plan) -> Plan:
    """The same plan with things typed that a fix might overwrite: a tilt, marks that stand high, a bracket, a tie."""
    data = dump(plan)
    axes = [axis["name"] for axis in data["rig"]["axes"]]
    if "tilt" not in axes and not data["kit"]["copies"] and "pan" in axes:
        data["rig"]["axes"].insert(axes.index("pan") + 1, TILT.model_dump(mode="json"))
    for key in data["move"]["keyframes"]:
        key["tilt_deg"] = key["tilt_deg"] or 4.0
    for mark in data["move"]["marks"]:
        mark["z_mm"] = mark["z_mm"] or 180.0
    if data["beat"]["bracket_frames"] == 1 and not data["beat"]["bracket_times_s"] and not data["beat"]["stack"]:
        data["beat"]["bracket_times_s"] = [data["beat"]["exposure_s"]] * 2
    if data["shoot"]["place"]["latitude_deg"] is not None and data["shoot"]["clock"]["tied"] is None:
        data["shoot"]["clock"]["tied"] = {"to": "sunset", "offset_s": "-1800"}
    return Plan.model_validate(data)


def moved_limits() -> Iterator[tuple[str, Plan]]:
    """The demo plans with axes that reach less far than their moves go."""
    for name in DEMOS:
        plan = demo(name)
        axes = tuple(
            axis.model_copy(update={"low": axis.low / 4 - 0.5, "high": axis.high / 4 + 0.5}) for axis in plan.rig.axes
        )
        yield name, plan.model_copy(update={"rig": plan.rig.model_copy(update={"axes": axes})})


class Named(TestCase):
    def _all_named(self, name: str, plan: Plan, snags: Sequence[Snag]) -> int:
        for snag in snags:
            for fix in snag.fixes:
                with self.subTest(f"{name}: {snag.code}: {fill(fix.label, fix.slots)}"):
                    self.assertEqual(unnamed(plan, fix), set(), fill(fix.consequence, fix.slots))
        return sum(len(snag.fixes) for snag in snags)

    def test_what_a_fix_writes_stands_in_its_words(self) -> None:
        count = sum(self._all_named(code, plan, provoked(code).snags) for code, plan in PROVOKE.items())
        self.assertGreater(count, 380)

    def test_so_it_does_where_there_is_more_to_lose(self) -> None:
        """Marks that stand high, heads that tilt, brackets of their own times, a start tied to the sun."""
        for code, plan in PROVOKE.items():
            more = with_more_to_lose(plan)
            self._all_named(code, more, evaluate(more).snags)
        for name, plan in moved_limits():
            self._all_named(name, plan, evaluate(plan).snags)


class AimedWithOnePace(TestCase):
    """A head from its own menu goes from one end to the other: no keyframe between, nothing told at every frame."""

    def test_both_ends_are_aimed_so_that_it_drifts_least(self) -> None:
        drive = {**HEAD["drive"], "keyframes": 6}
        menu = {**HEAD, "drive": drive, "more": [{**HEAD["more"][0], "drive": drive}]}
        cases = (
            (HEAD, 1500, {"Aim both ends so that it drifts least", "Let it drift"}),
            (HEAD, 9000, {"Aim the keyframes at it", "Let it drift"}),
            (menu, 1500, {"Add 1 keyframe", "Let it drift"}),
        )
        for card, away, labels in cases:
            plan = self._on(card, 25.0, 15.0, away)
            fixes = {fill(fix.label, fix.slots): fix for fix in self._drifts(plan).fixes}
            with self.subTest(labels):
                self.assertEqual(set(fixes), labels)
        plan = self._on(HEAD, 25.0, 15.0, 1500)
        least = apply(plan, list(self._drifts(plan).fixes[0].edits))[0]
        told = self._drifts(least, "mark-drifts-on-the-way")
        # Whichever end is turned by half a degree, and however, it drifts further.
        for start, end in ((0.5, 0.0), (-0.5, 0.0), (0.0, 0.5), (0.0, -0.5), (0.5, 0.5), (-0.5, 0.5)):
            keys = [key.pan_deg for key in least.move.keyframes]
            beside = self._on(HEAD, keys[0] + start, keys[1] + end, 1500)
            further = self._drifts(beside).slots["error"].value
            self.assertGreater(float(further), float(told.slots["error"].value))

    @staticmethod
    def _on(card: dict[str, Any], start: float, end: float, away: float) -> Plan:
        rig = [*copies("tripod", "belt-rail"), {"key": "head", "card": card}]
        return fitted(following(start, end, mark={"y_mm": away}), rig)

    @staticmethod
    def _drifts(plan: Plan, code: str = "mark-drifts") -> Snag:
        return next(one for one in evaluate(plan).snags if one.code == code)
