"""Everything that is printed, as it lies on the paper: after whatever else was looked at before."""

import json
import re

from playwright.sync_api import Page, expect

from tests.browser.pages import CHAPTERS, BrowserCase, chapter, leaf
from tests.browser.printed import Paper, printed
from tests.mutated import DEMO

# A card of some forty lines; an empty sheet has none of it.
LEAST_INK = 0.01


class Prints(BrowserCase):
    def card(self, page: Page) -> Paper:
        """The field card, which fits one sheet."""
        page.get_by_label("Field card").get_by_text("Take care").wait_for()
        papers = printed(page)
        self.assertEqual(len(papers), 1)
        self.assertGreater(papers[0].ink, LEAST_INK)
        return papers[0]

    def on_the_sheet(self, page: Page) -> list[str]:
        """Every setting of the field card, as the page shows it."""
        rows = page.get_by_label("Field card").locator("dt").all_inner_texts()
        return [" ".join(row.split()) for row in rows if row.strip()]

    def test_the_field_card_says_on_paper_what_it_says_on_the_page(self) -> None:
        page = self.page()
        page.locator("a.who").first.wait_for()
        addresses = [str(link.get_attribute("href")) for link in page.locator("a.who").all()]
        for address in addresses[:7]:
            page.goto(f"{self.server.address}{address.rpartition('/')[0]}/review")
            with self.subTest(address):
                text = self.card(page).text.replace(" ", "").lower()
                settings = self.on_the_sheet(page)
                # A shoot that ends on another day says on which, at the head of the card too.
                ends = (
                    page.get_by_label("Field card")
                    .locator("dt", has_text="finished")
                    .locator("xpath=../dd")
                    .inner_text()
                )
                self.assertIn(f"finished{ends}".replace(" ", "").replace("\u00a0", "").lower(), text)
                self.assertGreater(len(settings), 8)
                for setting in settings:
                    self.assertIn(setting.replace(" ", "").lower(), text)

    def _by_hand(self, chapter: str) -> Page:
        """The demo shoot without a card that says what drives it: its axes are set by hand."""
        page = self.page("/")
        plan = json.loads((DEMO / "shoots" / "harbour-refloat.json").read_text())
        plan["kit"] = {"copies": []}
        headers = {"X-CSRFToken": page.evaluate("document.cookie").partition("csrftoken=")[2].partition(";")[0]}
        answer = page.request.post(f"{self.server.address}/api/shoots/import", data=json.dumps(plan), headers=headers)
        page.goto(f"{self.server.address}/shoots/{answer.json()['id']}/{chapter}")
        page.get_by_role("navigation", name="Chapters").wait_for()
        return page

    def test_it_does_so_whatever_was_open_before(self) -> None:
        """Every chapter and every leaf is looked at first, and a list of marks is left standing in the drives."""
        page = self._by_hand("clip")
        for name, leaves in CHAPTERS.items():
            chapter(page, name)
            for each in leaves:
                leaf(page, each)
        chapter(page, "Move")
        leaf(page, "The drives")
        page.get_by_role("button", name="List the marks").click()
        expect(page.get_by_role("button", name="print the list")).to_be_visible()
        chapter(page, "Review")
        before = self.card(page)
        page.reload()
        self.assertEqual(before.text, self.card(page).text)

    def test_the_list_of_marks_is_printed_for_itself_to_its_last_line(self) -> None:
        page = self._by_hand("move/drives")
        page.get_by_role("button", name="List the marks").click()
        rows = page.locator(".print-alone tbody tr")
        expect(rows.first).to_be_visible()
        lines = rows.all_inner_texts()
        self.assertGreater(len(lines), 300)
        papers = printed(page)
        text = " ".join(paper.text for paper in papers)
        squeezed = re.sub(r"\s", "", text)
        self.assertIn("Harbourrefloat:markstoset", squeezed)
        for line in (lines[0], lines[len(lines) // 2], lines[-1]):
            self.assertIn(re.sub(r"\s", "", line), squeezed)
        for other in ("Chapters", "Rehearse", "Lean"):
            self.assertNotIn(other, squeezed)
        self.assertTrue(all(paper.ink > 0.001 for paper in papers), [paper.ink for paper in papers])

    def test_any_screen_that_is_printed_leaves_no_empty_paper(self) -> None:
        for path in ("/", "/kit", "/log", "/bin"):
            page = self.page(path)
            page.get_by_role("main").wait_for()
            page.wait_for_timeout(300)
            with self.subTest(path):
                papers = printed(page)
                self.assertTrue(papers[0].text)
                self.assertGreater(papers[0].ink, 0.0005)
