"""The move chapter: keyframes, tracking, the finder and its film, crops, rounds, the program and jogging."""

import re
from pathlib import Path
from typing import Any

import av
import numpy as np
from playwright.sync_api import Page, expect

from bridle.core.subjects.numbers.arrays import Floats
from tests.browser.pages import PATIENCE_MS, BrowserCase, chapter, figure, leaf, settled, type_over

# How many different tones there are in the finder's picture.
TONES = """canvas => {
  const {width, height} = canvas;
  const seen = new Set(canvas.getContext('2d').getImageData(0, 0, width, height).data);
  return seen.size;
}"""

# The tones of the finder's picture, row by row.
PIXELS = """canvas => {
  const {width, height} = canvas;
  const {data} = canvas.getContext('2d').getImageData(0, 0, width, height);
  return Array.from({length: height}, (_, y) =>
    Array.from({length: width}, (_, x) => data[4 * (y * width + x)] + data[4 * (y * width + x) + 1]));
}"""


def ready(page: Page) -> Any:
    """The finder's picture, once the scene is there."""
    canvas = page.locator("canvas[data-ready=yes]")
    canvas.wait_for()
    settled(page, lambda: canvas.evaluate("c => c.toDataURL()"), 150)
    return canvas


def rolled(canvas: Any) -> float:
    """By how many degrees the lines of a picture are turned anticlockwise from level and upright, within 45."""
    down, right = np.gradient(np.array(canvas.evaluate(PIXELS), dtype=float))
    # Lines square to each other say the same: four times the angle.
    whole = np.sum((right + 1j * -down) ** 4 / np.maximum(np.abs(right + 1j * down), 1e-9) ** 2)
    return float(np.degrees(np.angle(whole)) / 4)


def _unlike(one: Floats, other: Floats) -> float:
    """How far two pictures are apart, in tones per pixel."""
    return float(np.abs(one - other).mean())


class MoveChapter(BrowserCase):
    def test_keyframes_are_added_moved_stopped_at_and_taken_away(self) -> None:
        page = self.open_demo("Lamps along the quay", chapter="Move")
        page.keyboard.press("End")
        page.get_by_role("slider", name="Playhead").focus()
        page.keyboard.press("Home")
        for _ in range(4):
            page.keyboard.press("Shift+ArrowRight")
        page.get_by_role("button", name="+ keyframe at the playhead").click()
        expect(page.get_by_role("heading", name="Three keyframes, slide, pan and tilt")).to_be_visible()
        type_over(page, "frame of keyframe 2", "200")
        expect(figure(page, "frame of keyframe 2")).to_have_text("200")
        page.get_by_role("slider", name="Slide at keyframe 2").press("Shift+ArrowRight")
        page.get_by_role("combobox", name="At keyframe 2 the move").select_option("stop")
        type_over(page, "stands at keyframe 2 for", "40")
        expect(figure(page, "stands at keyframe 2 for")).to_have_text("40 frames")
        type_over(page, "frame of keyframe 2", "900")
        chapter(page, "Review")
        snag = page.locator("[data-snag=keyframe-misplaced]").first
        expect(snag).to_contain_text("Keyframe 2 cannot stand where it was put")
        snag.get_by_role("button", name="Spread them evenly").click()
        expect(page.locator("[data-snag=keyframe-misplaced]")).to_have_count(0)
        chapter(page, "Move")
        page.get_by_role("button", name="Take keyframe 2 away").click()
        expect(page.get_by_role("heading", name=re.compile("Two keyframes"))).to_be_visible()
        page.get_by_text("soft", exact=True).click()
        page.get_by_text("clip seconds", exact=True).click()
        type_over(page, "ease in, in seconds of clip", "3")
        expect(page.get_by_role("button", name=re.compile("^ease in, in the clip: 3 s"))).to_be_visible()

    def test_a_pan_is_leaned_on_its_drawing_and_the_picture_rolls_with_it(self) -> None:
        """Leaned to the right of where it looks: the camera rolls clockwise, and the horizon rises on the right."""
        # By night: shadows on the ground would be lines as well, and lie as the sun has them.
        page = self.open_demo("Moonlight over the salt barn", chapter="Move")
        page.get_by_label("thirds", exact=True).uncheck()
        level = rolled(ready(page))
        chapter(page, "Rig")
        page.get_by_role("button", name="lean it").click()
        knob = page.get_by_role("slider", name="Lean of the pan")
        knob.scroll_into_view_if_needed()
        box = page.get_by_role("group", name="The arc of the pan").bounding_box()
        held = knob.locator(".knob").bounding_box()
        assert box and held
        a_degree = box["width"] / 360
        x, y = held["x"] + held["width"] / 2, held["y"] + held["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x + 30 * a_degree, y, steps=3)
        page.mouse.move(x + 90 * a_degree, y + 5 * a_degree, steps=3)
        page.mouse.up()
        expect(knob).to_have_attribute("aria-valuetext", re.compile(r"^1[45](\.\d+)?° towards (89|9[01])"))
        rolls = page.get_by_role("button", name=re.compile("^it rolls, at the start")).first.inner_text()
        chapter(page, "Move")
        page.get_by_label("thirds", exact=True).uncheck()
        self.assertRegex(rolls, r"^1[34]\.")
        self.assertLess(abs(level), 1)
        # Short lines fall into the pixels' own steps, and turn less than they should.
        turned = rolled(ready(page))
        self.assertTrue(6 < turned < 15, turned)

    def test_a_mark_that_drifts_is_brought_back_by_one_button(self) -> None:
        page = self.open_demo("Lamps along the quay", chapter="Move")
        snag = page.locator("[data-snag=mark-drifts]")
        expect(snag).to_contain_text("The hand crane drifts")
        snag.get_by_role("button", name="Add 1 keyframe").click()
        expect(snag).to_have_count(0)
        expect(page.get_by_role("heading", name=re.compile("Three keyframes"))).to_be_visible()
        page.keyboard.press("u")
        snag.get_by_role("button", name="Follow it at every frame").click()
        expect(page.get_by_text("follows", exact=True).first).to_be_visible()
        leaf(page, "Marks and sight")
        page.get_by_role("button", name=re.compile("^lamp 1")).click()
        page.get_by_role("button", name="measure it by aiming twice").click()
        type_over(page, "pan at aim 2", "-4")
        expect(page.locator("[data-snag=mark-elsewhere], [data-snag=aims-too-alike]").first).to_be_visible()
        expect(page.get_by_role("cell", name="1 to 480").first).to_be_visible()

    def test_the_finder_shows_plays_and_saves_what_the_camera_sees(self) -> None:
        page = self.open_demo("Harbour refloat")
        scripts = "performance.getEntriesByType('resource').filter(r => /scene-/.test(r.name)).length"
        self.assertEqual(page.evaluate(scripts), 0, "the model is not loaded before it is needed")
        page.keyboard.press("3")
        canvas = ready(page)
        self.assertGreater(canvas.evaluate(TONES), 20)
        self.assertEqual(page.evaluate(scripts), 1)
        before = canvas.evaluate("c => c.toDataURL()")
        page.get_by_role("button", name="Larger").click()
        page.get_by_role("button", name="Smaller").click()
        page.get_by_role("button", name="Play", exact=True).click()
        expect(page.get_by_role("slider", name="Playhead")).not_to_have_attribute("aria-valuenow", "1")
        page.get_by_role("button", name="Pause").click()
        self.assertNotEqual(ready(page).evaluate("c => c.toDataURL()"), before)
        page.get_by_text("both ends").click()
        chapter(page, "Clip")
        type_over(page, "frames", "12")
        chapter(page, "Move")
        ready(page)
        as_shot = self._film(page)
        leaf(page, "The picture")
        page.get_by_text("the footage is played in reverse").click()
        leaf(page, "Framing")
        reverse = self._film(page)
        # The clip in reverse begins with the last frame and ends with the first.
        for begins, ends in ((as_shot, reverse), (reverse, as_shot)):
            self.assertLess(_unlike(begins[0], ends[-1]) * 3, _unlike(begins[0], ends[0]))

    def _film(self, page: Page) -> list[Floats]:
        """The frames of the preview as saved, each in tones of grey."""
        ready(page)
        with page.expect_download(timeout=3 * PATIENCE_MS) as saved:
            page.get_by_role("button", name="Save the preview as a WebM film").click()
        self.assertEqual(saved.value.suggested_filename, "harbour-refloat-copy-preview.webm")
        with av.open(str(saved.value.path())) as film:
            stream = film.streams.video[0]
            self.assertAlmostEqual(float(film.duration or 0) / 1e6, 12 / 25, 1)
            self.assertEqual((stream.width, stream.height), (1280, 720))
            frames = [frame.to_ndarray(format="gray").astype(float) for frame in film.decode(stream)]
        self.assertEqual(len(frames), 12)
        return frames

    def test_a_crop_that_moves_and_what_it_enlarges(self) -> None:
        page = self.open_demo("Mill Weir footbridge", chapter="Move")
        expect(page.get_by_role("heading", name="A still camera, a crop that moves")).to_be_visible()
        leaf(page, "The picture")
        page.get_by_role("slider", name="Width of the crop at the end").press("Shift+ArrowLeft")
        expect(figure(page, "width of the crop at the end")).to_have_text("67 %")
        snag = page.locator("[data-snag=picture-enlarged]").first
        expect(snag).to_contain_text("the picture is enlarged")
        snag.get_by_role("button", name=re.compile("^Deliver")).click()
        expect(snag).to_have_count(0)
        with page.expect_download() as table:
            page.get_by_role("link", name="rectangles for the encoder (CSV)").click()
        self.assertEqual(len(Path(table.value.path()).read_text().splitlines()), 2224)

    def test_stations_rows_and_a_live_run(self) -> None:
        page = self.open_demo("Harbour refloat", chapter="Move")
        leaf(page, "Rounds and repeats")
        page.get_by_text("stations", exact=True).click()
        expect(figure(page, "slide at station C")).to_have_text("860 mm")
        expect(page.get_by_role("button", name=re.compile("^pictures in all: 2160 frames"))).to_be_visible()
        page.get_by_text("panorama row", exact=True).click()
        expect(page.get_by_role("button", name=re.compile("^pictures in a row: 2"))).to_be_visible()
        page.get_by_text("one picture", exact=True).click()
        page.get_by_role("button", name="run it live too").click()
        snag = page.locator("[data-snag=live-too-fast]").first
        expect(snag).to_contain_text("Run live in 29 s, the slide would go")
        snag.get_by_role("button", name=re.compile("^Take")).click()
        expect(snag).to_have_count(0)

    def test_jogging_capturing_and_the_program(self) -> None:
        page = self.open_demo("Harbour refloat", chapter="Move")
        here = page.get_by_role("spinbutton", name="rig, slide")
        expect(here).to_have_text("not known")
        page.get_by_role("button", name="let the rig find where it is").click()
        expect(here).to_have_text("0 mm|")
        page.get_by_role("button", name="Send the rig to keyframe 1").click()
        expect(here).to_have_text("40 mm")
        here.press("Shift+ArrowRight")
        expect(here).to_have_text("50 mm")
        here.press("Enter")
        page.get_by_role("textbox", name="rig, slide").fill("62 mm")
        page.keyboard.press("Enter")
        expect(here).to_have_text("62 mm")
        page.get_by_role("slider", name="The rig on its rail").press("Shift+ArrowLeft")
        expect(here).to_have_text("52 mm")
        page.get_by_role("button", name="Take keyframe 1 as the rig stands").click()
        leaf(page, "The drives")
        page.get_by_role("button", name="Rehearse the program").click()
        outcome = page.get_by_role("status").filter(has_text="pictures fired")
        expect(outcome).to_contain_text("720 pictures fired, each once")
        # Steppers go where they are told: there are no marks for a hand to set.
        expect(page.get_by_role("button", name="List the marks")).to_have_count(0)
        page.get_by_text(re.compile("^saved")).first.wait_for()
        with page.expect_download() as program:
            page.get_by_role("link", name="program for the controller (G-code)").click()
        text = Path(program.value.path()).read_text()
        self.assertEqual(text.count("M64 P0"), 720)
        expect(page.get_by_text("Out of date.")).to_have_count(0)
        leaf(page, "Framing")
        expect(figure(page, "slide at keyframe 1")).to_have_text("52 mm")
        # Whatever was made of the plan before is told as such once the plan is another one.
        leaf(page, "The drives")
        page.get_by_role("button", name="Rehearse the program").click()
        expect(page.get_by_role("status").filter(has_text="pictures fired")).to_be_visible()
        type_over(page, "length of the pulse", "0.3")
        expect(page.get_by_role("status").filter(has_text="Out of date. The plan has changed")).to_have_count(2)
        expect(page.get_by_text(re.compile("out of date: taken"))).to_have_count(1)
        page.get_by_role("button", name="undo", exact=True).click()
        expect(page.get_by_text("Out of date.")).to_have_count(0)
        expect(page.get_by_text(re.compile("out of date: taken"))).to_have_count(0)
