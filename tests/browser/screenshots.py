"""Takes the pictures of the main views in docs/screenshots from the demo data: `make screenshots`."""

from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

from tests.browser.pages import CHROMIUM, FLAGS, leaf, type_over
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


def take_clip_and_rig(studio: Studio, links: dict[str, str]) -> None:
    """The leaves of the clip chapter, the rig and the kit."""
    harbour, lamps = links["Harbour refloat"], links["Lamps along the quay"]
    page = studio.open(f"{harbour}/clip", "paper")
    leaf(page, "One beat")
    page.get_by_role("button", name="measured: where the settle comes from").click()
    studio.take(page, "beat-paper")
    page = studio.open(f"{lamps}/rig", "paper")
    page.get_by_role("slider", name="Playhead").press("End")
    studio.take(page, "rig-paper")
    studio.take(studio.open(f"{lamps}/rig", "paper", **PHONE), "rig-phone")
    page = studio.open("/kit", "paper")
    page.get_by_role("button", name="900 mm belt rail").click()
    page.get_by_role("button", name="steps per unit", exact=True).click()
    for row, (commanded, measured) in enumerate(((400, 399.1), (400, 399.3), (800, 798.4)), 1):
        page.get_by_label(f"commanded, reading {row}").fill(str(commanded))
        page.get_by_label(f"measured, reading {row}").fill(str(measured))
    page.get_by_label("note to this measurement").click()
    page.get_by_text("spread").first.wait_for()
    studio.take(page, "kit-paper")


def take_light(studio: Studio, links: dict[str, str]) -> None:
    """The chapter Light, and the page for the dark."""
    lamps = links["Lamps along the quay"]
    page = studio.open(f"{lamps}/light", "paper")
    for _ in range(9):
        page.get_by_role("slider", name="Playhead on the span").press("Shift+ArrowRight")
    seen(page)
    studio.take(page, "light-paper")
    page = studio.open(f"{lamps}/dark", "paper", **PHONE)
    page.get_by_role("button", name="It starts now").click()
    studio.take(page, "dark-phone")


def seen(page: Page) -> None:
    """Wait for what the finder shows."""
    page.locator("canvas[data-ready=yes]").wait_for()


def take_all(studio: Studio, links: dict[str, str]) -> None:
    """Every main view once, spread over the three looks."""
    harbour, lamps = links["Harbour refloat"], links["Lamps along the quay"]
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
    seen(page)
    studio.take(page, "move-cyanotype")
    page = studio.open(f"{harbour}/move", "paper")
    for _ in range(7):
        page.get_by_role("slider", name="Playhead").press("Shift+ArrowRight")
    page.get_by_role("button", name="let the rig find where it is").click()
    page.get_by_role("button", name="Send the rig to keyframe 2").click()
    page.get_by_text("there, after").wait_for()
    seen(page)
    studio.take(page, "move-paper")
    studio.take(studio.open(f"{lamps}/review", "paper"), "review-paper")
    studio.take(studio.open(f"{lamps}/run", "safelight"), "run-safelight")
    studio.take(studio.open("/log", "paper"), "log-paper")
    studio.take(studio.open(f"{harbour}/clip", "paper", **PHONE), "clip-phone")
    take_clip_and_rig(studio, links)
    take_light(studio, links)
    studio.take(studio.open(f"{links['Fern frond uncurling']}/trigger", "paper"), "trigger-paper")
    take_print(studio, links["Lattice lantern"])
    page = studio.open(f"{links['Mill Weir footbridge']}/season", "paper")
    page.locator("path.ink").first.wait_for()
    studio.take(page, "season-paper")
    page = studio.open(f"{harbour}/clip", "paper")
    leaf(page, "One beat")
    type_over(page, "exposure", "15")
    page.locator("[data-snag=interval-too-short]").first.wait_for()
    page.get_by_role("button", name="shortest interval that fits").first.click()
    studio.take(page, "snag-and-working-paper")


def take_print(studio: Studio, lantern: str) -> None:
    """The bed with its core somewhere up the lantern, once its file has been made; and how that grows."""
    page = studio.open(f"{lantern}/print", "paper")
    page.locator(".layer[d^=M]").wait_for()
    core = page.get_by_role("slider", name="layer")
    for _ in range(8):
        core.press("PageUp")
    core.evaluate("one => one.blur()")
    studio.take(page, "print-paper")


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
            for name in (
                "Harbour refloat",
                "Lamps along the quay",
                "Fern frond uncurling",
                "Lattice lantern",
                "Mill Weir footbridge",
            ):
                href = page.get_by_role("link", name=name).first.get_attribute("href") or ""
                links[name] = href.rpartition("/")[0]
            take_all(Studio(browser, server.address), links)
            browser.close()
    finally:
        server.stop()


if __name__ == "__main__":
    main()
