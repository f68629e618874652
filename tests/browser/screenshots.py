"""Takes the pictures of the main views in docs/screenshots from the demo data: `make screenshots`."""

from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

from tests.browser.pages import CHROMIUM, FLAGS, type_over
from tests.served import Served

FOLDER = Path(__file__).parents[2] / "docs" / "screenshots"
PHONE = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}


class Studio:
    """One browser on one demo server."""

    def __init__(self, browser: Browser, address: str) -> None:
        self.browser, self.address = browser, address

    def open(self, path: str, look: str, **options: object) -> Page:
        options = {"viewport": {"width": 1280, "height": 800}, "locale": "en-GB", **options}
        page = self.browser.new_context(**options).new_page()  # type: ignore[arg-type]
        page.add_init_script(f"localStorage.setItem('bridle.look', '{look}')")
        page.goto(self.address + path)
        page.wait_for_load_state("networkidle")
        return page

    def take(self, page: Page, name: str) -> None:
        page.evaluate("document.activeElement?.blur()")
        page.wait_for_timeout(400)
        page.screenshot(path=FOLDER / f"{name}.png")
        print(name)
        page.context.close()


def take_all(studio: Studio, harbour: str, lamps: str) -> None:
    """Every main view once, spread over the three looks."""
    studio.take(studio.open("/", "paper"), "shoots-paper")
    page = studio.open(f"{harbour}/clip", "paper")
    for _ in range(300):
        page.keyboard.press(".")
    studio.take(page, "clip-paper")
    studio.take(studio.open(f"{lamps}/clip", "safelight"), "clip-safelight")
    page = studio.open(f"{lamps}/move", "cyanotype")
    page.get_by_role("slider", name="Playhead").press("End")
    for _ in range(10):
        page.get_by_role("slider", name="Playhead").press("Shift+ArrowLeft")
    studio.take(page, "move-cyanotype")
    page = studio.open(f"{harbour}/move", "paper")
    for _ in range(7):
        page.get_by_role("slider", name="Playhead").press("Shift+ArrowRight")
    page.get_by_role("button", name="slide travels").evaluate("e => e.blur()")
    studio.take(page, "move-paper")
    studio.take(studio.open(f"{lamps}/review", "paper"), "review-paper")
    studio.take(studio.open(f"{lamps}/run", "safelight"), "run-safelight")
    studio.take(studio.open("/log", "paper"), "log-paper")
    studio.take(studio.open(f"{harbour}/clip", "paper", **PHONE), "clip-phone")
    page = studio.open(f"{harbour}/clip", "paper")
    type_over(page, "exposure", "15")
    page.locator("[data-snag=interval-too-short]").first.wait_for()
    page.get_by_role("button", name="shortest interval that fits").click()
    studio.take(page, "snag-and-working-paper")


def main() -> None:
    """Serve the demo, take the pictures, put everything away."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    server = Served()
    try:
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
            page = browser.new_page()
            page.goto(server.address)
            links = {}
            for name in ("Harbour refloat", "Lamps along the quay"):
                href = page.get_by_role("link", name=name).get_attribute("href") or ""
                links[name] = href.rpartition("/")[0]
            take_all(Studio(browser, server.address), links["Harbour refloat"], links["Lamps along the quay"])
            browser.close()
    finally:
        server.stop()


if __name__ == "__main__":
    main()
