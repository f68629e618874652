"""Nothing lost, nothing stuck, on the real page."""

import json
import re
import sqlite3
import time
from contextlib import closing
from pathlib import Path
from typing import Any

from playwright.sync_api import Dialog, Page, Route, expect

from bridle.datafolder.where import database
from tests.browser.pages import BrowserCase, chapter, chapters_of, figure, leaf, type_over

SEGMENTS = {
    "source": "changing",
    "segments": [{"length_s": "5760", "interval_s": "16"}, {"length_s": "5760", "interval_s": "16"}],
    "blend_frames": 3,
}
PAIR = {"kind": "stereo", "base_mm": 60.0}
STATIONS = {"kind": "stations", "stations": [{"name": "here"}, {"name": "here", "slide_mm": 300.0}]}
ROW = {"kind": "row", "sweep_deg": 90.0}


def away(route: Route) -> None:
    """Nothing that changes something gets through."""
    if route.request.method == "GET":
        route.continue_()
    else:
        route.abort()


class Firm(BrowserCase):
    def changed(self, page: Page, *edits: tuple[str, Any]) -> None:
        """Put values at paths of the plan that is open, from another window; then open it here as it is now."""
        shoot = page.url.split("/shoots/")[1].split("/")[0]
        script = """async ([shoot, edits]) => {
            const opened = await (await fetch(`/api/shoots/${shoot}`)).json();
            const token = document.cookie.split('csrftoken=')[1];
            const send = (method, path, body) => fetch(path, {method, body: JSON.stringify(body),
                headers: {'X-CSRFToken': token, 'Content-Type': 'application/json'}}).then(r => r.json());
            const changes = edits.map(([path, value]) => ({do: 'set', path, value}));
            const told = await send('POST', '/api/evaluate', {plan: opened.plan, changes});
            if (!told.plan) throw new Error(JSON.stringify(told));
            return send('PUT', `/api/shoots/${shoot}`, {version: opened.version, plan: told.plan});
        }"""
        page.evaluate(script, [shoot, [list(edit) for edit in edits]])

    def reopened(self, page: Page, *edits: tuple[str, Any]) -> Page:
        self.changed(page, *edits)
        page.reload()
        page.get_by_role("navigation", name="Chapters").wait_for()
        return page

    def test_things_of_one_name_open_every_page(self) -> None:
        page = self.open_demo(chapter="Review")
        errand = {"name": "wait", "length_s": "600"}
        self.reopened(page, ("shoot.clock.errands", [errand, errand, errand]))
        expect(page.get_by_role("heading", name=re.compile("^Past: its last frame was due 27 Jun"))).to_be_visible()
        self.assertEqual(page.locator(".card dt", has_text="wait").count(), 3)
        for visits in (PAIR, STATIONS, ROW):
            with self.subTest(visits["kind"]):
                self.reopened(page, ("move.visits", visits))
                page.get_by_role("link", name="Clip").click()
                leaf(page, "One beat")
                expect(page.get_by_role("table", name="Two ways to move")).to_be_visible()
                for name in chapters_of(page):
                    chapter(page, name)
                    expect(page.locator("main h2, main h3").first).to_be_visible()
                    self.assertEqual(page.locator(".fault").count(), 0)

    def test_a_chapter_that_cannot_be_drawn_says_so_and_undo_brings_it_back(self) -> None:
        page = self.open_demo()

        def spoil(route: Route) -> None:
            answer = route.fetch()
            told = answer.json()
            told["evaluation"]["clip"]["quantities"] = [None]
            route.fulfill(response=answer, body=json.dumps(told))

        page.route("**/api/evaluate", spoil, times=1)
        type_over(page, "interval", "20 s")
        expect(page.locator("main .fault")).to_contain_text("Clip cannot be drawn just now.")
        expect(page.get_by_role("navigation", name="Chapters")).to_be_visible()
        page.locator("main .fault").get_by_role("button", name="Undo the last change").click()
        expect(figure(page, "interval")).to_have_text("16 s")
        self.assertTrue(self.complaints)
        self.complaints.clear()

    def test_two_windows_that_differ_in_kind_and_place(self) -> None:
        page = self.open_demo()
        marks = [{"name": "post", "form": "post", "x_mm": 10.0 * n, "y_mm": 900.0} for n in range(5)]
        self.changed(page, ("move.visits", PAIR), ("move.marks", marks), ("frames", SEGMENTS))
        type_over(page, "interval", "20 s")
        dialog = page.get_by_role("dialog", name="Two windows have changed this shoot")
        expect(dialog).to_be_visible()
        rows = dialog.locator("tbody th").all_inner_texts()
        self.assertEqual(len(set(rows)), len(rows))
        self.assertIn("move, visits", rows)
        dialog.get_by_role("button", name="Keep mine").click()
        expect(page.locator("[data-saved]")).to_have_attribute("data-saved", "saved")
        page.get_by_role("button", name="earlier versions").click()
        expect(page.get_by_label("Earlier versions").locator("li")).to_have_count(3)

    def test_an_earlier_version_is_looked_at_brought_back_and_undone(self) -> None:
        page = self.open_demo()
        for text in ("20 s", "24 s"):
            type_over(page, "interval", text)
            expect(figure(page, "interval")).to_have_text(text)
            expect(page.locator("[data-saved]")).to_have_attribute("data-saved", "saved")
        page.get_by_role("button", name="earlier versions").click()
        line = page.get_by_label("Earlier versions").locator("li", has_text="as it was begun")
        line.get_by_role("button", name="Look at it").click()
        expect(page.get_by_text("Nothing can be changed here.")).to_be_visible()
        expect(figure(page, "interval")).to_have_text("16 s")
        type_over(page, "interval", "30 s")
        expect(page.get_by_text("This is how it stood once.")).to_be_visible()
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Back to now").click()
        expect(figure(page, "interval")).to_have_text("24 s")
        page.get_by_role("button", name="earlier versions").click()
        line.get_by_role("button", name="Bring it back").click()
        expect(figure(page, "interval")).to_have_text("16 s")
        page.get_by_role("button", name="undo", exact=True).click()
        expect(figure(page, "interval")).to_have_text("24 s")
        expect(page.locator("[data-saved]")).to_have_attribute("data-saved", "saved")

    def test_what_could_not_be_saved_is_saved_after_a_reload(self) -> None:
        page = self.open_demo()
        context, address = page.context, page.url
        shoot = address.split("/shoots/")[1].split("/")[0]

        # Worked out, and not saved; then not even worked out.
        page.route(f"**/api/shoots/{shoot}", away)
        type_over(page, "interval", "20 s")
        expect(figure(page, "interval")).to_have_text("20 s")
        expect(page.get_by_text("kept in this browser")).to_be_visible()
        page.route("**/api/evaluate", away)
        type_over(page, "playback rate", "24")
        expect(page.locator("[data-saved]")).to_have_text("not saved")
        asked: list[str] = []

        def answer(dialog: Dialog) -> None:
            asked.append(dialog.type)
            dialog.accept()

        page.on("dialog", answer)
        with page.expect_event("close"):
            page.close(run_before_unload=True)
        self.assertEqual(asked, ["beforeunload"])
        fresh = context.new_page()
        fresh.goto(self.server.address)
        until = time.monotonic() + 15
        while fresh.evaluate("Object.keys(localStorage).some((key) => key.startsWith('bridle.unsaved'))"):
            self.assertLess(time.monotonic(), until, "nobody saved what was left")
            fresh.wait_for_timeout(100)
        fresh.goto(address)
        expect(figure(fresh, "interval")).to_have_text("20 s")
        expect(figure(fresh, "playback rate")).to_have_text("24 a second")

    def test_a_change_that_had_no_answer_when_the_window_closed_is_made_by_the_next(self) -> None:
        page = self.open_demo()
        context, address = page.context, page.url
        page.route("**/api/evaluate", lambda route: None)
        type_over(page, "playback rate", "24")
        page.on("dialog", lambda dialog: dialog.accept())
        with page.expect_event("close"):
            page.close(run_before_unload=True)
        fresh = context.new_page()
        fresh.goto(address)
        expect(figure(fresh, "playback rate")).to_have_text("24 a second")

    def test_the_sheet_itself_takes_up_what_was_left(self) -> None:
        page = self.open_demo()
        shoot = page.url.split("/shoots/")[1].split("/")[0]
        page.route(f"**/api/shoots/{shoot}", away)
        type_over(page, "interval", "20 s")
        expect(page.get_by_text("kept in this browser")).to_be_visible()
        page.on("dialog", lambda dialog: dialog.accept())
        page.unroute(f"**/api/shoots/{shoot}")
        page.reload()
        expect(figure(page, "interval")).to_have_text("20 s")
        expect(page.locator("[data-saved]")).to_have_attribute("data-saved", "saved")

    def test_a_server_that_was_away_gets_what_was_changed_meanwhile(self) -> None:
        page = self.open_demo()
        self.server.kill()
        type_over(page, "interval", "20 s")
        expect(page.get_by_text("What you changed is kept in this")).to_be_visible()
        self.server.start()
        expect(figure(page, "interval")).to_have_text("20 s")
        expect(page.locator("[data-saved]")).to_have_attribute("data-saved", "saved")

    def test_a_working_is_asked_for_when_it_is_opened(self) -> None:
        page = self.open_demo()
        asked: list[str] = []
        page.on("request", lambda request: asked.append(request.url.rpartition("/")[2]))
        page.locator("aside, .aside").get_by_role("button", name="finished").click()
        slip = page.get_by_label("Working of finished")
        expect(slip).to_contain_text("every frame owns one slot, the last one too")
        expect(slip).to_contain_text("09:22:00")
        self.assertEqual(asked.count("working"), 1)

    def test_nothing_moves_under_a_hand_and_what_it_does_not_move_stays(self) -> None:
        page = self.open_demo(chapter="Move")
        held = page.get_by_role("slider", name="mooring post, away from the rail", exact=True)
        along = page.get_by_role("slider", name="Slide at keyframe 1", exact=True)
        expect(along).to_be_visible()
        stood, box = held.get_attribute("aria-valuenow"), held.bounding_box()
        assert box is not None
        page.route(
            "**/api/shoots/*", lambda route: route.abort() if route.request.method == "PUT" else route.continue_()
        )
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x + 30, y, steps=3)
        expect(page.locator("[data-saved]")).to_have_text("not saved, trying again")
        page.mouse.move(x + 60, y, steps=3)
        expect(page.get_by_role("alert")).to_have_count(0)
        expect(held).to_have_attribute("aria-valuenow", str(stood))
        page.mouse.up()
        expect(page.get_by_role("alert")).to_contain_text("cannot be reached")
        page.unroute("**/api/shoots/*")
        expect(page.locator("[data-saved]")).to_have_text(re.compile("^saved"))
        page.keyboard.press("u")
        expect(held).to_have_attribute("aria-valuenow", str(stood))

    def test_two_windows_that_could_not_save_are_both_there_afterwards(self) -> None:
        page = self.open_demo("Moonlight over the salt barn")
        shoot = page.url.split("/shoots/")[1].split("/")[0]
        told = page.evaluate(f"fetch('/api/shoots/{shoot}').then(answer => answer.json())")
        for number, name in enumerate(("older work", "newer work")):
            plan = {**told["plan"], "shoot": {**told["plan"]["shoot"], "name": name}}
            left = {"shoot": int(shoot), "identity": told["identity"], "data": told["data"], "name": name,
                    "version": told["version"], "plan": plan, "changes": [], "at": 10**12 + number}  # fmt: skip
            key = f"bridle.unsaved.{told['identity']}.gone{number}"
            page.evaluate("([key, left]) => localStorage.setItem(key, JSON.stringify(left))", [key, left])
        page.reload()
        expect(page.get_by_role("heading", name="newer work")).to_be_visible()
        second = page.locator("[data-left=second]")
        expect(second).to_contain_text("older work")
        with page.expect_download() as taken:
            second.get_by_role("button", name="Take it along as a plan file").click()
        self.assertEqual(json.loads(Path(taken.value.path()).read_text())["shoot"]["name"], "older work")
        second.get_by_role("button", name="Make it a shoot of its own").click()
        expect(page.get_by_role("heading", name="older work, not saved before")).to_be_visible()
        expect(page.locator("[data-left]")).to_have_count(0)

    def test_a_line_that_cannot_be_worked_out_stands_beside_the_others(self) -> None:
        with closing(sqlite3.connect(database(self.server.data), timeout=20)) as opened:
            plan = json.dumps({"bridle_plan": 99})
            same = "created_at, changed_at"
            opened.execute(
                f"INSERT INTO shoots_shoot (name, plan, version, {same}, demo, sought, summary, summary_of, identity,"
                f" binned_ran_s) SELECT 'From tomorrow', ?, 1, {same}, '', '', '', '', 'tomorrow', 0"
                " FROM shoots_shoot LIMIT 1",
                (plan,),
            )
            opened.commit()
        page = self.page("/")
        expect(page.get_by_role("link", name="Harbour refloat").first).to_be_visible()
        expect(page.locator("[data-broken]")).to_contain_text("written by a newer Bridle")
        with page.expect_download() as taken:
            page.get_by_role("link", name="take its plan along").click()
        self.assertEqual(json.loads(taken.value.path().read_text()), {"bridle_plan": 99})
        page.get_by_role("link", name="From tomorrow").click()
        expect(page.get_by_role("heading", name="This one cannot be worked out")).to_be_visible()

    def test_what_a_run_refuses_and_what_it_has_not_done_yet_is_told(self) -> None:
        page = self.reopened(self.open_demo(chapter="Run"), ("beat.exposure_s", "8"))
        page.get_by_role("radio", name="1×").check(force=True)
        page.get_by_role("button", name="Start the run").click()
        page.wait_for_timeout(6500)
        page.get_by_role("button", name="Pause").click()
        expect(page.locator("[data-pending]")).to_contain_text("Asked for and not done yet: to pause.")
        page.get_by_role("radio", name="600×").check(force=True)
        expect(page.get_by_role("heading", name="Paused")).to_be_visible()
        expect(page.locator("[data-pending]")).to_have_count(0)
        refusal = {"message": "This run has ended; nothing can be asked of it any more.", "problems": []}
        page.route("**/api/runs/*/ask", lambda route: route.fulfill(status=409, json=refusal))
        page.get_by_role("button", name="Stop").click()
        expect(page.get_by_role("alert")).to_contain_text("nothing can be asked of it any more")
        page.unroute("**/api/runs/*/ask")
        page.get_by_role("link", name="Shoots").click()
        name = page.locator(".line", has_text="Harbour refloat, copy").first
        name.get_by_role("button", name="to the bin").click(force=True)
        expect(page.get_by_role("alert")).to_contain_text("A run of this shoot is under way.")

    def test_a_card_is_brought_back_as_it_was(self) -> None:
        page = self.page("/kit")
        page.get_by_role("button", name="900 mm belt rail").first.click()
        name = page.get_by_role("textbox", name="name of the card")
        was = name.input_value()
        name.fill("another name")
        name.press("Enter")
        expect(page.get_by_role("article", name="Card another name")).to_be_visible()
        page.get_by_role("button", name="earlier versions").click()
        page.get_by_role("button", name="Look at it").first.click()
        expect(page.get_by_role("dialog")).to_contain_text(f"name {was} instead of another name")
        page.get_by_role("button", name="Bring it back").first.click()
        expect(page.get_by_role("article", name=f"Card {was}")).to_be_visible()

    def test_a_card_and_a_note_wait_for_the_server_too(self) -> None:
        page = self.page("/kit")
        page.get_by_role("button", name="full-frame body, 24 MP").first.click()
        page.route("**/api/kit/**", away)
        type_over(page, "writes in", "3 s")
        expect(page.get_by_text("Bridle cannot be reached.")).to_be_visible()
        page.on("dialog", lambda dialog: dialog.accept())
        page.unroute("**/api/kit/**")
        page.reload()
        page.get_by_role("button", name="full-frame body, 24 MP").first.click()
        expect(figure(page, "writes in")).to_have_text("3 s")

        page.goto(f"{self.server.address}/log")
        note = page.get_by_label("What to do differently next time").first
        page.route("**/api/log/**", away)
        note.fill("ballast, and more of it")
        expect(page.get_by_text("Your note is kept in this browser")).to_be_visible()
        page.unroute("**/api/log/**")
        page.reload()
        expect(note).to_have_value("ballast, and more of it")
        expect(page.get_by_text("saved", exact=True)).to_be_visible()
        page.reload()
        expect(note).to_have_value("ballast, and more of it")

    def test_a_quick_hand_on_a_slow_server_undoes_nothing_of_its_own(self) -> None:
        page = self.open_demo("Lamps along the quay", chapter="Rig")

        def slowly(route: Route) -> None:
            page.wait_for_timeout(400)
            route.continue_()

        page.get_by_role("button", name="Put something on").click()
        dialog = page.get_by_role("dialog")
        expect(dialog.get_by_role("button", name="light tripod")).to_be_visible()
        page.keyboard.press("Escape")
        page.route("**/api/evaluate", slowly)
        page.get_by_role("button", name="take tripod, three sections off").click(no_wait_after=True)
        page.get_by_role("button", name="Put something on").click(no_wait_after=True)
        dialog.get_by_role("button", name="light tripod").click(no_wait_after=True)
        expect(page.get_by_role("button", name="take light tripod off")).to_be_visible()
        expect(page.get_by_role("button", name="take tripod, three sections off")).to_have_count(0)
        page.unroute("**/api/evaluate")
