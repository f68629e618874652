"""A real browser on the real server, for tests of the page."""

import re
from collections.abc import Callable
from typing import Any
from unittest import TestCase

from playwright.sync_api import Browser, Page, expect, sync_playwright

from tests.served import ROOT, Served

CHROMIUM = "/usr/bin/chromium"
FLAGS = [
    "--headless",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
# A machine that others use too draws late, by many times; what is wrong stays wrong.
PATIENCE_MS = 60_000
expect.set_options(timeout=PATIENCE_MS)
LOOKS = ("paper", "cyanotype", "safelight")
PAGE = ROOT / "frontend" / "src" / "chapters"


def _chapters() -> dict[str, list[str]]:
    """The chapters in the order of the page and the leaves of each, as the page itself lists them."""
    (listed,) = re.findall(r"CHAPTERS[^=]*= \[([^\]]*)\]", (PAGE / "chapters.ts").read_text())
    found: dict[str, list[str]] = {}
    for key in re.findall(r"\w+", listed):
        label, *leaves = re.findall(r"label: '([^']*)'", (PAGE / key / "index.ts").read_text())
        found[label] = leaves
    return found


CHAPTERS = _chapters()
# The part of the address of each chapter.
KEYS = {
    label: key
    for index in PAGE.glob("*/index.ts")
    for key, label in re.findall(r"key: '(\w+)',\s+label: '([^']*)',\s+load", index.read_text())
}


class BrowserCase(TestCase):
    """One server and one browser for a class; every test gets pages of its own, which must not complain."""

    server: Served
    browser: Browser

    @classmethod
    def setUpClass(cls) -> None:
        cls.server = Served()
        cls.addClassCleanup(cls.server.stop)
        playwright = sync_playwright().start()
        cls.addClassCleanup(playwright.stop)
        cls.browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        cls.addClassCleanup(cls.browser.close)

    def page(self, path: str = "/", look: str = "paper", **options: Any) -> Page:
        """A new window on an address; what it asks of other machines or complains of is kept in `complaints`."""
        options = {"viewport": {"width": 1280, "height": 800}, "locale": "en-GB", **options}
        context = self.browser.new_context(**options)
        self.addCleanup(context.close)
        context.grant_permissions(["clipboard-read", "clipboard-write"], origin=self.server.address)
        page = context.new_page()
        page.set_default_timeout(PATIENCE_MS)
        page.set_default_navigation_timeout(PATIENCE_MS)
        self.complaints: list[str] = []
        page.on("pageerror", lambda error: self.complaints.append(str(error)))
        page.on("console", self._complains)
        page.on("request", self._stays_here)
        page.add_init_script(f"localStorage.setItem('bridle.look', '{look}')")
        page.goto(self.server.address + path)
        return page

    def _stays_here(self, request: Any) -> None:
        if not request.url.startswith((self.server.address, "data:", "blob:")):
            self.complaints.append(f"asked {request.url}")

    def _complains(self, message: Any) -> None:
        """A part that could not be drawn says so on the console, where the page itself goes on."""
        if message.type == "error" and not message.text.startswith("Failed to load resource"):
            self.complaints.append(message.text)

    def tearDown(self) -> None:
        self.assertEqual(getattr(self, "complaints", []), [])

    def open_demo(self, name: str = "Harbour refloat", chapter: str = "Clip", **options: Any) -> Page:
        """A copy of a demo shoot, so that tests do not meet on one, opened at a chapter."""
        page = self.page("/", **options)
        with page.expect_response(lambda answer: answer.url.endswith("/duplicate")) as made:
            page.get_by_role("button", name=f"Duplicate {name}", exact=True).click(force=True)
        page.goto(f"{self.server.address}/shoots/{made.value.json()['id']}/{KEYS[chapter]}")
        page.get_by_role("navigation", name="Chapters").wait_for()
        return page


def settled(page: Page, read: Callable[[], Any], every_ms: int = 400) -> Any:
    """What is read off the page once it has stayed the same for three looks."""
    values: list[Any] = []
    for _ in range(60):
        page.wait_for_timeout(every_ms)
        values.append(read())
        if len(values) >= 3 and values[-1] == values[-2] == values[-3]:
            break
    return values[-1]


def chapter(page: Page, name: str) -> None:
    """Go to a chapter by its link; digits belong to a figure that has the focus."""
    page.get_by_role("navigation", name="Chapters").get_by_role("link", name=re.compile(rf"\b{name}\b")).click()


def chapters_of(page: Page) -> dict[str, list[str]]:
    """The chapters that this shoot has a use for, with their leaves."""
    links = page.get_by_role("navigation", name="Chapters").get_by_role("link")
    links.first.wait_for()
    shown = " ".join(links.all_inner_texts())
    return {name: leaves for name, leaves in CHAPTERS.items() if re.search(rf"\b{name}\b", shown)}


def figure(page: Page, label: str) -> Any:
    """A figure that is changed where it stands."""
    return page.get_by_role("spinbutton", name=label, exact=True)


def leaf(page: Page, name: str) -> None:
    """Turn to a leaf of the clip or the move chapter."""
    page.get_by_role("navigation", name=re.compile("^Parts of the")).get_by_role("link", name=name).click()


def others(page: Page, leaves: list[str]) -> list[str]:
    """The leaves of the chapter that lies open but its first, as far as the shoot has a use for them."""
    if len(leaves) < 2:
        return []
    links = page.get_by_role("navigation", name=re.compile("^Parts of the")).get_by_role("link")
    links.first.wait_for()
    shown = links.all_inner_texts()
    assert shown[0] == leaves[0] and set(shown) <= set(leaves), (shown, leaves)
    return shown[1:]


def set_when(page: Page, day: int, month: int, year: int, hour: int, minute: int) -> None:
    """Type a day and a time into their parts, in whichever order these stand."""
    for name, value in (("day", day), ("month", month), ("year", year), ("hour", hour), ("minute", minute)):
        page.get_by_role("spinbutton", name=f"{name},").focus()
        page.keyboard.type(f"{value:04d}" if name == "year" else f"{value:02d}")


def type_over(page: Page, label: str, text: str) -> None:
    """Type over a figure, as a person does."""
    figure(page, label).focus()
    page.keyboard.press("Enter")
    page.get_by_role("textbox", name=label, exact=True).fill(text)
    page.keyboard.press("Enter")
