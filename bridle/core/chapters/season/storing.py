"""Card, file numbers, shutter: what the frames of a long run take, and what they wear."""

from collections.abc import Iterator

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import Body
from bridle.core.reckon.season.season import Staying
from bridle.core.reckon.season.storage import MB_A_GB, USUAL_BYTES, Stored
from bridle.core.snag import Fix, Snag, SnagKind, slot

WORN = SnagKind(
    "shutter-worn-out",
    "mind",
    "season",
    "The shutter of the {camera} will have taken {times} by the end; it is rated for {rated}.",
    "Some last far longer, some do not: it may stop in the middle, and nobody is there.",
)
NO_ROOM = SnagKind(
    "card-holds-no-frame",
    "stop",
    "season",
    "A frame takes {frame}; less than that is free on the card.",
    "Nothing can be stored on it, with the share that is kept free.",
)
KINDS = (WORN, NO_ROOM)
# Gigabytes in the trade.
SIZES_GB = (8.0, 16.0, 32.0, 64.0, 128.0, 256.0, 512.0, 1024.0, 2048.0, 4096.0)

ESTIMATED = Formula(
    "wide * high * 1.3 / 1000000", "an estimate: raw files have 1.1 to 1.6 bytes a pixel; weigh one of your own"
)
WEIGHED = Formula("mb", "as it was typed")
ALL = Formula("picture * pictures / 1000", "every picture of every frame")
HOLDS = Formula("floor(size * 1000 * (1 - reserve) / (picture * each))", "whole frames, with a share kept free")
COPIES = Formula("all * copies", "each frame in so many places")
ROLLS = Formula("floor((at + pictures - 1) / last)", "after the last number comes 1 again")
GONE = Formula("done + pictures", "what it has done already, and every picture")


def findings(plan: Plan, stay: Staying) -> Iterator[Figure | Snag]:
    """What the frames take, and what wears out."""
    store, storing = stay.store, plan.season.storing
    picture_mb = store.frame_mb / store.a_frame
    if store.weighed:
        yield figure("season.picture", "a picture", picture_mb, "MB", WEIGHED, term("mb", "typed", picture_mb, "MB"))
    else:
        sides = (
            term("wide", "width", plan.camera.picture_width_px, "px"),
            term("high", "height", plan.camera.picture_height_px, "px"),
        )
        assert USUAL_BYTES == 1.3  # as the formula says
        yield figure("season.picture", "a picture, about", picture_mb, "MB", ESTIMATED, *sides)
    picture = term("picture", "a picture", picture_mb, "MB")
    pictures = term("pictures", "pictures", store.pictures, "")
    all_gb = picture_mb * store.pictures / MB_A_GB
    yield figure("season.all", "all frames", all_gb, "GB", ALL, picture, pictures)
    copies = term("all", "all frames", all_gb, "GB"), term("copies", "places", storing.copies, "")
    yield figure("season.kept", "to be kept", all_gb * storing.copies, "GB", COPIES, *copies)
    rolls = (storing.counter_at + store.pictures - 1) // storing.counter_last
    counter = term("at", "number now", storing.counter_at, ""), term("last", "last number", storing.counter_last, "")
    yield figure("season.rolls", "file numbers start again", rolls, "times", ROLLS, pictures, *counter)
    if store.holds is not None:
        yield figure(
            "season.card", "a card holds", store.holds, "frames", HOLDS, term("size", "card", store.gigabytes, "GB"),
            term("reserve", "kept free", storing.reserve, "share"), picture,
            term("each", "pictures a frame", store.a_frame, ""),
        )  # fmt: skip
        if not store.holds:
            yield _no_room(plan, store)
    yield from _wear(plan, store)


def _no_room(plan: Plan, store: Stored) -> Snag:
    share = 1 - float(plan.season.storing.reserve)
    needed = next((size for size in SIZES_GB if size * MB_A_GB * share >= store.frame_mb), SIZES_GB[-1])
    path = f"kit.copies.{store.card}.card.gigabytes"
    fix = Fix(
        label="Plan with a card of {size}",
        consequence="Frames fit on it. The share that is kept free is as before.",
        slots={"size": slot(needed, "GB")},
        edits=(Edit(path=path, value=needed),),
    )
    return NO_ROOM.at(path, {"frame": slot(store.frame_mb, "MB")}, [fix])


def _wear(plan: Plan, store: Stored) -> Iterator[Figure | Snag]:
    if store.shutter_rated is None:
        return
    gone = store.shutter_done + store.pictures
    done, pictures = (
        term("done", "done already", store.shutter_done, ""),
        term("pictures", "pictures", store.pictures, ""),
    )
    yield figure("season.shutter", "shutter, by the end", gone, "pictures", GONE, done, pictures)
    if gone <= store.shutter_rated:
        return
    at, body = next((n, copy.card) for n, copy in enumerate(plan.kit.copies) if isinstance(copy.card, Body))
    path = f"kit.copies.{at}.card.shutter_rated"
    fix = Fix(
        label="Let it expose without a moving shutter",
        consequence="Where it can: nothing wears then. What moves fast in the picture may lean, lamps may draw bands.",
        slots={},
        edits=(Edit(path=path, value=None),),
    )
    slots = {"camera": slot(body.name), "times": slot(gone, "pictures"), "rated": slot(store.shutter_rated, "pictures")}
    yield WORN.at(path, slots, [fix])
