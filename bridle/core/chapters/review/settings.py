"""What is set on the camera before the start, as far as its card says that it can be."""

from collections.abc import Iterator

from bridle.core.asks.shelf import is_usual
from bridle.core.chapters.review.glass import filter_lines
from bridle.core.chapters.review.lines import line, sheet
from bridle.core.chapters.review.state import SettingLine, SettingSheet
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Body, Phone
from bridle.core.quantity import listed, write, write_shutter
from bridle.core.reckon.changes import change_lines
from bridle.core.reckon.parts import has_own_lens, imager_of
from bridle.core.reckon.picture import focal_ends
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Slot, slot

USUAL = ", as is usual; not checked on this one"
RAW = {"yes": "raw files", "no": "its best picture files", "not known": "raw files if it writes them"}
STILL = {
    "none": "", "can be switched off": "stabiliser off", "always on": "its stabiliser stays on",
    "not known": "stabiliser off, if it has one",
}  # fmt: skip
HOLDS = {"yes": "fixed", "no": "cannot be fixed", "not known": "fixed, if that can be done"}


def camera_settings(plan: Plan, shooting: Shooting | None) -> SettingSheet:
    """Mode, exposure, filters, lens, focus and colour, in the order in which they are set."""
    camera = imager_of(plan.kit.copies)
    rows = (
        line("mode", slot(f"{_mode(plan, camera)}, {RAW[camera.raw if camera else 'yes']}")),
        *_exposure(plan, shooting, camera),
        *filter_lines(plan),
        line("focal length", _focal(plan, camera)),
        *_screwed_out(plan),
        line("focus", slot(_focus(camera))),
        line("white balance", slot(HOLDS[camera.holds_white] if camera else "fixed")),
        line("noise reduction", slot("on" if plan.beat.noise_reduction else "off")),
    )
    return sheet("Camera", rows)


def _mode(plan: Plan, camera: Body | Phone | None) -> str:
    if plan.light.school == "automatic":
        return "exposed by itself"
    manual = camera.manual if camera else "yes"
    locked = "exposed by itself, then locked once it looks right"
    return {"yes": "manual", "no": locked, "not known": f"manual if it has that; else {locked}"}[manual]


def _exposure(plan: Plan, shooting: Shooting | None, camera: Body | Phone | None) -> Iterator[SettingLine]:
    """Shutter, bracket, aperture and ISO; none that the camera finds by itself."""
    automatic = plan.light.school == "automatic"
    followed = shooting.followed if shooting else None
    first = next(change_lines(shooting, 0), None) if shooting and followed else None
    begins = " to begin with" if first and not automatic else ""
    # A camera without a manual mode is locked as near to this as it comes.
    near = "about " if camera is not None and camera.manual == "no" else ""
    if not automatic:
        shutter = first.shutter_s if first else float(plan.beat.exposure_s)
        yield line(f"shutter{begins}", slot(f"{near}{write_shutter(shutter)}") if near else slot(shutter, "shutter"))
    yield from _bracket(plan)
    if not (automatic and "aperture" in plan.light.order):
        yield line("aperture", _aperture(first.aperture if first else plan.camera.aperture, camera))
    if not automatic:
        iso = first.iso if first else plan.camera.iso
        yield line(f"ISO{begins}", slot(f"{near}{iso:g}") if near else slot(iso))


def _aperture(f_number: float, camera: Body | Phone | None) -> Slot:
    if camera is None or camera.only_f is None:
        return slot(f_number, "f-number")
    usual = USUAL if is_usual(camera, "only_f") else ""
    return slot(f"{write(f_number, 'f-number')}, the only one it has{usual}")


def _focal(plan: Plan, camera: Body | Phone | None) -> Slot:
    shortest, longest = focal_ends(plan)
    if shortest != longest:
        return slot(f"{shortest:g} to {longest:g} mm, as it zooms")
    own = camera is not None and has_own_lens(camera) and camera.focal_mm == longest
    if own and camera is not None and is_usual(camera, "focal_mm"):
        return slot(f"{write(longest, 'focal')}{USUAL}")
    return slot(longest, "focal")


def _screwed_out(plan: Plan) -> Iterator[SettingLine]:
    """A fixed lens that is screwed out of its mount: how far, in turns of its thread too."""
    out = plan.camera.extension_mm
    if out is not None:
        turns = out / plan.camera.thread_mm
        yield line("lens screwed out by", slot(f"{write(out, 'focal')}: {turns:.3g} turns"), "help.out.turns")
        yield line("subject from the lens", slot(plan.camera.focal_mm * (1 + plan.camera.focal_mm / out), "mm"),
                   "help.out.subject")  # fmt: skip


def _focus(camera: Body | Phone | None) -> str:
    if camera is None:
        return "manual, stabiliser off"
    held = {"yes": "manual", "no": "cannot be fixed", "not known": "manual, if that can be done"}[camera.holds_focus]
    return ", ".join(part for part in (held, STILL[camera.stabiliser]) if part)


def _bracket(plan: Plan) -> Iterator[SettingLine]:
    beat = plan.beat
    if beat.bracket_times_s:
        times = listed([write_shutter(float(time)) for time in beat.bracket_times_s])
        yield line("bracket", slot(times), "beat.bracket")
    elif beat.bracket_frames > 1:
        yield line("bracket", slot(f"{beat.bracket_frames} exposures, {beat.bracket_step_stops:g} stops apart"))
    if beat.stack:
        yield line("focus from", slot(beat.stack.near_mm, "mm"), "beat.positions")
        yield line("focus to", slot(beat.stack.far_mm, "mm"), "beat.positions")
