"""What is said for a status, wherever a request is answered with it."""

from bridle.formats.plan_json import LARGEST_BYTES

# What any request may be answered with, besides what belongs to it alone.
SAID = {
    400: "This request cannot be read.",
    403: "This request did not come from Bridle's own page. Load the page again.",
    404: "There is nothing of that number here.",
    405: "This address does not do that.",
    413: f"This is too large; a plan has at most {LARGEST_BYTES // 1_000_000} MB.",
    422: "This request has values that do not belong in it.",
    500: "The fault is Bridle's, and is in its log. Nothing was changed.",
    503: "The database cannot be used just now.",
    507: "The disk is full.",
}
