"""What comes out of the printer: the words on each sheet of paper, and how much of it is ink."""

from typing import NamedTuple

import numpy as np
import pypdfium2
from playwright.sync_api import Page

DARK = 128


class Paper(NamedTuple):
    """A sheet of paper: its words with single spaces, and the share of it that is dark."""

    text: str
    ink: float


def printed(page: Page) -> list[Paper]:
    """The page as it prints on A4, sheet by sheet."""
    document = pypdfium2.PdfDocument(page.pdf(format="A4"))
    papers = []
    for sheet in document:
        text = " ".join(sheet.get_textpage().get_text_range().split())
        grey = sheet.render(scale=1, grayscale=True).to_numpy()
        papers.append(Paper(text, float(np.mean(grey < DARK))))
    document.close()
    return papers
