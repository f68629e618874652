"""Security headers that Django has no setting for."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponseBase

# Scripts come from the page's own files only. Inline styles are let in for sizes that the page sets.
POLICY = "; ".join(
    [
        "default-src 'self'",
        "script-src 'self'",
        "style-src 'self' 'unsafe-inline'",
        "img-src 'self' data:",
        "font-src 'self'",
        "connect-src 'self'",
        "object-src 'none'",
        "base-uri 'none'",
        "form-action 'self'",
        "frame-ancestors 'none'",
    ]
)


def content_security_policy(
    get_response: Callable[[HttpRequest], HttpResponseBase],
) -> Callable[[HttpRequest], HttpResponseBase]:
    """Middleware: put the content security policy on every answer."""

    def middleware(request: HttpRequest) -> HttpResponseBase:
        response = get_response(request)
        response.headers["Content-Security-Policy"] = POLICY
        response.headers["Permissions-Policy"] = "camera=(), microphone=(), geolocation=()"
        return response

    return middleware
