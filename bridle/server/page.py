"""The page: one built file, whatever the address; the page's own router does the rest."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie

NOT_BUILT = "The page has not been built yet. Run `make demo`, or `make page`.\n"


@ensure_csrf_cookie
def page(request: HttpRequest, path: str = "") -> HttpResponse:
    """The page's entry file; it must not be kept by the browser, since it names the current scripts."""
    entry = settings.PAGE / "index.html"
    if not entry.is_file():
        return HttpResponse(NOT_BUILT, status=503, content_type="text/plain; charset=utf-8")
    response = HttpResponse(entry.read_bytes(), content_type="text/html; charset=utf-8")
    response["Cache-Control"] = "no-cache"
    return response
