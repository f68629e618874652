"""Marks that were measured by aiming at them twice: where they are, and how well that is known."""

from collections.abc import Iterator
from dataclasses import replace

from bridle.core.figure import Figure, Term, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.marks import Aimed, Mark
from bridle.core.reckon.poses import leaned
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.motion import tracking
from bridle.core.subjects.motion.tracking import Found

TOO_LIKE = SnagKind(
    "aims-too-alike",
    "mind",
    "move",
    "Two aims at the {mark}, at {first} and {second}, do not tell where it is.",
    "They hardly differ, or cross behind the camera: within {doubt} of reading them it may stand anywhere. Aim from "
    "places further apart.",
)
ELSEWHERE = SnagKind(
    "mark-elsewhere",
    "note",
    "move",
    "The {mark} is drawn {away} off the rail; two aims put it between {near} and {far}.",
    "Tracking, parallax and smear are worked out from where it is drawn.",
)
ON_A_LEAN = SnagKind(
    "aims-on-a-lean",
    "note",
    "move",
    "Two aims at the {mark} do not tell where it is: the pan leans by {lean}.",
    "A pan that leans does not read a bearing: how far it turns depends on how high the mark stands.",
)
ALONG_IT = "The {mark} is drawn {away} along the rail; two aims put it between {near} and {far} along it."
KINDS = (TOO_LIKE, ELSEWHERE, ON_A_LEAN)


def found(aimed: Aimed) -> Found | None:
    """Where two aims meet; None where they do not, or might not."""
    try:
        return tracking.aimed_twice(
            aimed.slide_1_mm, aimed.slide_2_mm, aimed.pan_1_deg, aimed.pan_2_deg, aimed.doubt_deg
        )
    except ValueError:
        return None


def findings(plan: Plan) -> Iterator[Figure | Snag]:
    """Figures and snags of every mark that was aimed at twice, from two places of a rail."""
    for number, mark in enumerate(plan.move.marks if plan.rig.axis("slide") else ()):
        if mark.aimed is None or mark.form == "bearing":
            continue
        lean = leaned(plan)
        if lean is not None:
            slots = {"mark": slot(mark.name), "lean": slot(lean.by, "deg")}
            yield ON_A_LEAN.at(f"move.marks.{number}.aimed", slots, [_forget(number)])
            continue
        place = found(mark.aimed)
        if place is None:
            yield _too_alike(number, mark, mark.aimed)
            continue
        yield from _figures(number, mark, mark.aimed, place)
        if not _inside(mark, place):
            yield _elsewhere(number, mark, place)


def _inside(mark: Mark, place: Found) -> bool:
    """Whether the mark is drawn within what the two aims allow; to the millimetre, as marks are drawn."""
    (left, right), (near, far) = place.along_mm, place.away_mm
    return left - 1 <= mark.x_mm <= right + 1 and near - 1 <= mark.y_mm <= far + 1


def _figures(number: int, mark: Mark, aimed: Aimed, place: Found) -> Iterator[Figure]:
    pans = (term("pan_1", "first pan", aimed.pan_1_deg, "deg"), term("pan_2", "second pan", aimed.pan_2_deg, "deg"))
    slides = (
        term("first", "slide at the first aim", aimed.slide_1_mm, "mm"),
        term("second", "slide at the second aim", aimed.slide_2_mm, "mm"),
    )
    key, said = f"aimed.{number}", f"{mark.name}, by two aims"
    yield figure(f"{key}.away", f"{said}, away from the rail", place.y_mm, "mm", tracking.AWAY, *slides, *pans)
    away = term("away", "away from the rail", place.y_mm, "mm")
    yield figure(f"{key}.along", f"{said}, along it", place.x_mm, "mm", tracking.ALONG, slides[0], away, pans[0])
    yield from _corners(key, mark, aimed, slides)


def _corners(key: str, mark: Mark, aimed: Aimed, slides: tuple[Term, Term]) -> Iterator[Figure]:
    """Between which places it stands, away from the rail and along it: the worst of the four corners."""
    pans = [
        (aimed.pan_1_deg + first * aimed.doubt_deg, aimed.pan_2_deg + second * aimed.doubt_deg)
        for first in (-1, 1)
        for second in (-1, 1)
    ]
    met = [(tracking.meet(aimed.slide_1_mm, aimed.slide_2_mm, *pair), pair) for pair in pans]
    ends = (("near", "far", 1, "away", tracking.AWAY), ("left", "right", 0, "along", tracking.ALONG))
    for least, most, coordinate, way, rule in ends:
        for name, label, pick in ((least, f"{way}, at the least", min), (most, f"{way}, at the most", max)):
            place, pair = pick(met, key=lambda one: one[0][coordinate])
            first, second = (
                term(f"pan_{n}", f"{nth} pan, read wrong by the doubt", pan, "deg")
                for n, nth, pan in ((1, "first", pair[0]), (2, "second", pair[1]))
            )
            away = term("away", "away from the rail then", place[1], "mm")
            terms = (*slides, first, second) if rule is tracking.AWAY else (slides[0], away, first)
            yield figure(f"{key}.{name}", f"{mark.name}, {label}", place[coordinate], "mm", rule, *terms)


def _too_alike(number: int, mark: Mark, aimed: Aimed) -> Snag:
    slots = {
        "mark": slot(mark.name),
        "first": slot(aimed.pan_1_deg, "deg"),
        "second": slot(aimed.pan_2_deg, "deg"),
        "doubt": slot(aimed.doubt_deg, "deg"),
    }
    return TOO_LIKE.at(f"move.marks.{number}.aimed", slots, [_forget(number)])


def _forget(number: int) -> Fix:
    return Fix(
        label="Forget the two aims",
        consequence="The mark stays where it is drawn.",
        slots={},
        edits=(Edit(path=f"move.marks.{number}.aimed", value=None),),
    )


def _elsewhere(number: int, mark: Mark, place: Found) -> Snag:
    x, y = round(place.x_mm), round(place.y_mm)
    told, drawn, ends = (ELSEWHERE.what, mark.y_mm, place.away_mm)
    if ends[0] - 1 <= drawn <= ends[1] + 1:
        told, drawn, ends = (ALONG_IT, mark.x_mm, place.along_mm)
    slots = {
        "mark": slot(mark.name),
        "away": slot(drawn, "mm"),
        "near": slot(ends[0], "mm"),
        "far": slot(ends[1], "mm"),
    }
    fix = Fix(
        label="Put it at {along} along, {off} off the rail",
        consequence="The drawing follows the two aims; the pans that point at the mark change with it.",
        slots={"along": slot(x, "mm"), "off": slot(y, "mm")},
        edits=(
            Edit(path=f"move.marks.{number}.x_mm", value=float(x)),
            Edit(path=f"move.marks.{number}.y_mm", value=float(y)),
        ),
    )
    return replace(ELSEWHERE.at(f"move.marks.{number}", slots, [fix]), what=told)
