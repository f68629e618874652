"""Marks that were measured by aiming at them twice: where they are, and how well that is known."""

from collections.abc import Iterator

from bridle.core.figure import Figure, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.marks import Aimed, Mark
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.motion import tracking
from bridle.core.subjects.motion.tracking import Found

TOO_LIKE = SnagKind(
    "aims-too-alike",
    "mind",
    "move",
    "Two aims at the {mark}, at {first} and {second}, do not tell where it is.",
    "They hardly differ, or cross behind the rail: within {doubt} of reading them it may stand anywhere. Aim from "
    "places further apart.",
)
ELSEWHERE = SnagKind(
    "mark-elsewhere",
    "note",
    "move",
    "The {mark} is drawn {away} off the rail; two aims put it between {near} and {far}.",
    "Tracking, parallax and smear are worked out from where it is drawn.",
)
KINDS = (TOO_LIKE, ELSEWHERE)


def found(aimed: Aimed) -> Found | None:
    """Where two aims meet; None where they do not, or might not."""
    try:
        return tracking.aimed_twice(
            aimed.slide_1_mm, aimed.slide_2_mm, aimed.pan_1_deg, aimed.pan_2_deg, aimed.doubt_deg
        )
    except ValueError:
        return None


def findings(plan: Plan) -> Iterator[Figure | Snag]:
    """Figures and snags of every mark that was aimed at twice."""
    for number, mark in enumerate(plan.move.marks):
        if mark.aimed is None or mark.form == "bearing":
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
    corners = (
        ("near", "away, at the least", place.away_mm[0], min),
        ("far", "away, at the most", place.away_mm[1], max),
    )
    for name, label, value, pick in corners:
        signs = pick(((s, t) for s in (-1, 1) for t in (-1, 1)), key=lambda st: _corner(aimed, st[0], st[1]))
        terms = (
            *slides,
            term("pan_1", "first pan, read wrong by the doubt", aimed.pan_1_deg + signs[0] * aimed.doubt_deg, "deg"),
            term("pan_2", "second pan, read wrong by the doubt", aimed.pan_2_deg + signs[1] * aimed.doubt_deg, "deg"),
        )
        yield figure(f"{key}.{name}", f"{mark.name}, {label}", value, "mm", tracking.AWAY, *terms)


def _corner(aimed: Aimed, first: int, second: int) -> float:
    pans = aimed.pan_1_deg + first * aimed.doubt_deg, aimed.pan_2_deg + second * aimed.doubt_deg
    return tracking.meet(aimed.slide_1_mm, aimed.slide_2_mm, *pans)[1]


def _too_alike(number: int, mark: Mark, aimed: Aimed) -> Snag:
    slots = {
        "mark": slot(mark.name),
        "first": slot(aimed.pan_1_deg, "deg"),
        "second": slot(aimed.pan_2_deg, "deg"),
        "doubt": slot(aimed.doubt_deg, "deg"),
    }
    fix = Fix(
        label="Forget the two aims",
        consequence="The mark stays where it is drawn.",
        slots={},
        edits=(Edit(path=f"move.marks.{number}.aimed", value=None),),
    )
    return TOO_LIKE.at(f"move.marks.{number}.aimed", slots, [fix])


def _elsewhere(number: int, mark: Mark, place: Found) -> Snag:
    x, y = round(place.x_mm), round(place.y_mm)
    slots = {
        "mark": slot(mark.name),
        "away": slot(mark.y_mm, "mm"),
        "near": slot(place.away_mm[0], "mm"),
        "far": slot(place.away_mm[1], "mm"),
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
    return ELSEWHERE.at(f"move.marks.{number}", slots, [fix])
