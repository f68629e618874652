"""The page for everybody: keys, looks, contrast, two windows, bad input, a server that is gone, its weight."""

import gzip
import re
import urllib.request
from pathlib import Path
from tempfile import TemporaryDirectory

from playwright.sync_api import Page, expect

from tests.browser.pages import CHAPTERS, LOOKS, BrowserCase, chapter, chapters_of, figure, leaf, others, type_over

AXE = (Path(__file__).parents[2] / "frontend/node_modules/axe-core/axe.min.js").read_text()
TAGS = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]
MOST_BYTES = 200_000
# By its own button, also where a dialog stands before it; and until its colours have come.
NEXT_LOOK = """async () => {
    document.querySelector("[aria-label^='Look: ']").click();
    await new Promise(requestAnimationFrame);
    await Promise.all(document.getAnimations().filter(one => one instanceof CSSTransition).map(one => one.finished));
}"""


class Everybody(BrowserCase):
    def _axe(self, page: Page, where: str) -> None:
        # The content security policy keeps scripts out, also this one; the browser's own evaluation may run it.
        if not page.evaluate("'axe' in window"):
            page.evaluate(AXE)
        for look in LOOKS:
            self.assertEqual(page.evaluate("document.documentElement.dataset.look"), look)
            # The looks differ in colours and in nothing else: in the second and the third only these are looked at.
            only = TAGS if look == LOOKS[0] else {"type": "rule", "values": ["color-contrast"]}
            found = page.evaluate("only => axe.run(document, {runOnly: only})", only)
            said = [f"{one['id']}: {one['nodes'][0]['html'][:120]}" for one in found["violations"]]
            self.assertEqual(said, [], f"{where}, {look}")
            page.evaluate(NEXT_LOOK)

    def test_axe_finds_nothing(self) -> None:
        page = self.open_demo()
        for name, leaves in chapters_of(page).items():
            chapter(page, name)
            page.wait_for_load_state("networkidle")
            self._axe(page, name)
            for part in others(page, leaves):
                leaf(page, part)
                page.wait_for_load_state("networkidle")
                self._axe(page, part)
        page = self.open_demo("Mill Weir footbridge", "Long run")
        for part in ["When", *others(page, CHAPTERS["Long run"])]:
            leaf(page, part)
            page.wait_for_load_state("networkidle")
            self._axe(page, part)
        page.goto(f"{self.server.address}/kit")
        page.get_by_role("button", name="900 mm belt rail").click()
        page.get_by_role("button", name="steps per unit", exact=True).click()
        self._axe(page, "kit")
        for path in ("/", "/log", "/bin", "/nowhere"):
            page.goto(self.server.address + path)
            page.wait_for_load_state("networkidle")
            self._axe(page, path)
        page.goto(self.server.address)
        page.keyboard.press("n")
        expect(page.get_by_role("dialog")).to_be_visible()
        self._axe(page, "new shoot")

    def test_safelight_has_no_other_hue(self) -> None:
        page = self.open_demo(look="safelight")
        leaf(page, "One beat")
        type_over(page, "exposure", "30")  # with a snag on the page
        expect(page.locator("[data-snag=interval-too-short]")).to_be_visible()
        seen = page.evaluate(
            """() => [...new Set([...document.querySelectorAll('*')].flatMap(e => {
                const s = getComputedStyle(e);
                return [s.color, s.backgroundColor, s.borderTopColor, s.outlineColor, s.fill, s.stroke];
            }))].filter(c => c.startsWith('rgb'))"""
        )
        for colour in seen:
            red, green, blue, *alpha = (float(n) for n in re.findall(r"[\d.]+", colour))
            if not alpha or alpha[0] > 0:
                self.assertTrue(red >= green >= blue and (green <= 0.33 * red + 1), colour)

    def test_keys(self) -> None:
        page = self.open_demo()
        page.keyboard.press("2")
        expect(page).to_have_url(re.compile("/rig$"))
        page.keyboard.press("1")
        flag = page.get_by_role("slider", name="Playhead on the span")
        page.keyboard.press(".")
        page.keyboard.press(".")
        page.keyboard.press(",")
        expect(flag).to_have_attribute("aria-valuenow", "2")
        page.keyboard.press(" ")
        expect(flag).not_to_have_attribute("aria-valuenow", "2")
        page.keyboard.press(" ")
        figure(page, "interval").focus()
        page.keyboard.press("ArrowUp")
        expect(figure(page, "interval")).to_have_text("16.5 s")
        page.keyboard.press("Shift+ArrowDown")
        expect(figure(page, "interval")).to_have_text("15 s")
        page.keyboard.press("Alt+ArrowUp")
        expect(figure(page, "interval")).to_have_text("15.1 s")
        page.keyboard.press("p")
        expect(page.get_by_role("button", name="Peg the interval")).to_be_visible()
        for _ in range(2):
            page.keyboard.press("u")
        expect(figure(page, "interval")).to_have_text("16 s")
        page.keyboard.press("Shift+U")
        expect(figure(page, "interval")).to_have_text("15.1 s")
        page.keyboard.press("?")
        expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
        page.keyboard.press("Escape")
        page.get_by_role("button", name=re.compile("^Look")).click()
        self.assertEqual(page.evaluate("document.documentElement.dataset.look"), "cyanotype")
        page.reload()
        self.assertEqual(page.evaluate("document.documentElement.dataset.look"), "paper", "the init script sets it")

    def test_bad_input_is_told_at_its_place_and_nothing_is_lost(self) -> None:
        page = self.open_demo()
        leaf(page, "One beat")
        type_over(page, "exposure", "ages")
        expect(page.get_by_role("alert").filter(has_text="Expected a time such as")).to_be_visible()
        field = page.get_by_role("textbox", name="exposure", exact=True)
        expect(field).to_have_value("ages")
        field.press("Escape")
        expect(figure(page, "exposure")).to_have_text("2.5 s")
        type_over(page, "interval", "-5")
        expect(page.get_by_role("alert").filter(has_text="Expected a time such as")).to_be_visible()

    def test_plan_files_that_are_none(self) -> None:
        page = self.page()
        with TemporaryDirectory() as folder:
            for name, content, said in (
                ("letter.json", b"Dear planner", "not JSON"),
                ("newer.json", b'{"bridle_plan": 99}', "newer Bridle"),
                ("huge.json", b" " * 50_000_000, "50 MB; a plan has at most 1 MB"),
            ):
                file = Path(folder) / name
                file.write_bytes(content)
                page.get_by_label("Plan file").set_input_files(file)
                expect(page.get_by_role("alert")).to_contain_text(said)
                expect(page.get_by_role("alert")).to_contain_text("Nothing was kept")

    def test_two_windows_on_one_shoot(self) -> None:
        first = self.open_demo()
        second = first.context.new_page()
        second.goto(first.url)
        expect(figure(second, "interval")).to_have_text("16 s")
        type_over(first, "interval", "20")
        expect(figure(first, "interval")).to_have_text("20 s")
        expect(first.locator("[data-saved=saved]")).to_be_visible()
        type_over(second, "interval", "24")
        dialog = second.get_by_role("dialog", name="Two windows have changed this shoot")
        expect(dialog).to_contain_text("25 a second, 3 h 12 min and 24 s")
        dialog.get_by_role("button", name=re.compile("Take the other")).click()
        expect(figure(second, "interval")).to_have_text("20 s")
        second.keyboard.press("u")
        expect(figure(second, "interval")).to_have_text("24 s")
        expect(second.locator("[data-saved=saved]")).to_be_visible()
        first.reload()
        expect(figure(first, "interval")).to_have_text("24 s")

    def test_a_server_that_is_gone_for_a_while(self) -> None:
        page = self.open_demo()
        type_over(page, "interval", "20")
        expect(figure(page, "interval")).to_have_text("20 s")
        expect(page.locator("[data-saved=saved]")).to_be_visible()
        self.server.kill()
        type_over(page, "interval", "22")
        expect(page.get_by_role("alert").filter(has_text="cannot be reached").first).to_be_visible()
        self.server.start()
        page.keyboard.press("Escape")
        type_over(page, "interval", "22")
        expect(figure(page, "interval")).to_have_text("22 s")
        expect(page.locator("[data-saved=saved]")).to_be_visible()
        page.reload()
        expect(figure(page, "interval")).to_have_text("22 s")

    def test_the_bin_gives_back(self) -> None:
        page = self.open_demo("Lamps along the quay")
        page.get_by_role("link", name="Shoots").click()
        page.get_by_role("button", name="Lamps along the quay, copy to the bin").first.click(force=True)
        expect(page.get_by_role("status").filter(has_text="is in the bin")).to_be_visible()
        page.get_by_role("link", name=re.compile("The bin keeps")).click()
        page.get_by_role("button", name="Put Lamps along the quay, copy back").first.click()
        expect(page.get_by_text("Nothing in the bin.")).to_be_visible()

    def test_the_page_is_light(self) -> None:
        sizes = []
        for name in re.findall(r"/assets/[\w.-]+\.(?:js|css)", self._fetch("/")[0].decode()):
            body, encoding = self._fetch(name)
            self.assertEqual(encoding, "gzip", f"{name} is served compressed")
            self.assertTrue(gzip.decompress(body))
            sizes.append(len(body))
        self.assertGreater(len(sizes), 1)
        self.assertLess(sum(sizes), MOST_BYTES)

    def _fetch(self, path: str) -> tuple[bytes, str | None]:
        request = urllib.request.Request(self.server.address + path, headers={"Accept-Encoding": "gzip"})
        with urllib.request.urlopen(request) as answer:
            return answer.read(), answer.headers["Content-Encoding"]
