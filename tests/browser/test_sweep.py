"""Every screen, leaf, dialog and printable of every shoot, on a desk and on a phone: nothing anybody would find."""

import json
import re
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from playwright.sync_api import Page

from tests.browser.pages import BrowserCase, chapter, chapters_of, leaf, others

LOOK = (Path(__file__).parent / "sweep.js").read_text()
DESK: dict[str, Any] = {"viewport": {"width": 1280, "height": 800}}
PHONE: dict[str, Any] = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}
SCREENS = {"/": "shoots", "/kit": "kit", "/log": "log", "/bin": "bin", "/nowhere": "nowhere"}


# Nothing new has come for a while; waiting for the network to be idle takes half a second each time.
AT_REST = """() => new Promise(done => {
    let count = -1, still = 0;
    const look = () => {
        const now = performance.getEntriesByType('resource').length;
        still = now === count && !document.querySelector('[role=status].mono-note') ? still + 1 : 0;
        count = now;
        if (still >= 3) done(); else setTimeout(look, 40);
    };
    setTimeout(done, 3000);
    look();
})"""


class Sweeping(BrowserCase):
    """All that is found is told at once, with where it was found."""

    found: dict[str, list[str]]

    @contextmanager
    def _swept(self, phone: bool) -> Iterator[Page]:
        self.found = {}
        page = self.page("/", **(PHONE if phone else DESK))
        page.on("requestfailed", lambda request: self._lost(request.url, request.failure or ""))
        page.on("response", lambda answer: self._lost(answer.url, str(answer.status)) if answer.status >= 400 else None)
        page.on("console", lambda message: self._said(message.type, message.text))
        yield page
        if self.found:
            self.fail("\n".join(f"{said}  [{'; '.join(places[:3])}]" for said, places in self.found.items()))

    def _lost(self, url: str, why: str) -> None:
        # What is asked again before it has answered is given up on purpose.
        if "ERR_ABORTED" not in why:
            self.found.setdefault(f"{url} {why}", [])

    def _said(self, kind: str, text: str) -> None:
        # The driver of a machine without a graphics card tells how slow it is.
        if kind in ("warning", "error") and "GL Driver Message" not in text:
            self.found.setdefault(f"{kind} {text}", [])

    def _look(self, page: Page, where: str, phone: bool) -> None:
        page.evaluate(AT_REST)
        page.evaluate("document.fonts.ready.then(() => new Promise(done => setTimeout(done, 90)))")
        for said in page.evaluate(f"({LOOK})({json.dumps(phone)})"):
            self.found.setdefault(said, []).append(where)

    def _shoots(self, page: Page) -> dict[str, int]:
        shoots = page.evaluate("fetch('/api/shoots').then(answer => answer.json())")["shoots"]
        return {shoot["name"]: shoot["id"] for shoot in shoots}

    def _sweep_sheet(self, page: Page, name: str, number: int, phone: bool) -> None:
        page.goto(f"{self.server.address}/shoots/{number}/clip")
        page.get_by_role("navigation", name="Chapters").wait_for()
        for title, leaves in chapters_of(page).items():
            chapter(page, title)
            self._look(page, f"{name}, {title}", phone)
            for part in others(page, leaves):
                leaf(page, part)
                self._look(page, f"{name}, {title}, {part}", phone)
        chapter(page, "Rig")
        page.get_by_role("button", name="Put something on").click()
        self._look(page, f"{name}, what can be put on", phone)
        page.keyboard.press("Escape")
        page.get_by_role("button", name="earlier versions").click()
        self._look(page, f"{name}, earlier versions", phone)
        page.keyboard.press("Escape")
        page.keyboard.press("?")
        self._look(page, f"{name}, keys", phone)
        page.keyboard.press("Escape")
        page.get_by_title("Change what it is called, where and when").click()
        self._look(page, f"{name}, where and when", phone)
        page.keyboard.press("Escape")
        if phone:
            # Paper is as wide as paper, whatever it is printed from.
            return
        chapter(page, "Review")
        page.emulate_media(media="print")
        self._look(page, f"{name}, field card in print", False)
        page.emulate_media(media="screen")

    def _new(self, page: Page) -> None:
        page.goto(self.server.address)
        page.keyboard.press("n")
        page.get_by_label("What is it called?").fill("Nothing yet")
        page.get_by_role("button", name=re.compile("^Make|^Open|^Create|sheet")).last.click()
        page.get_by_role("navigation", name="Chapters").wait_for()

    def _sweep(self, phone: bool) -> None:
        with self._swept(phone) as page:
            for path, where in SCREENS.items():
                page.goto(self.server.address + path)
                self._look(page, where, phone)
            page.goto(f"{self.server.address}/kit")
            for card in ("900 mm belt rail", "motion head with an app", "floor dolly", "full-frame body"):
                page.get_by_role("button", name=re.compile(f"^{card}")).click()
                self._look(page, f"card of {card}", phone)
                page.get_by_role("button", name="close").click()
            page.goto(self.server.address)
            page.get_by_role("button", name="Units").click()
            self._look(page, "units", phone)
            page.keyboard.press("Escape")
            page.keyboard.press("n")
            self._look(page, "new shoot", phone)
            self._new(page)
            for name, number in self._shoots(page).items():
                self._sweep_sheet(page, name, number, phone)


class OnADesk(Sweeping):
    """A class of its own, as each runs beside the others."""

    def test_on_a_desk(self) -> None:
        self._sweep(phone=False)


class OnAPhone(Sweeping):
    """The same on a phone."""

    def test_on_a_phone(self) -> None:
        self._sweep(phone=True)
