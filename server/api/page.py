"""The one page that holds the screens; the address decides which one."""

from __future__ import annotations

from functools import cache

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

__all__ = ["page", "service_worker"]


@cache
def _html() -> str:
    index = settings.WEB_DIST / "index.html"
    return str(index.read_text(encoding="utf-8"))


@require_safe
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """Return the page, with the token cookie that every change must carry."""
    del request
    response = HttpResponse(_html())
    response.headers["Cache-Control"] = "no-cache"
    return response


@cache
def _worker() -> str:
    return str((settings.WEB_DIST / "sw.js").read_text(encoding="utf-8"))


@require_safe
def service_worker(request: HttpRequest) -> HttpResponse:
    """Return what keeps the page on a device, from the root: it serves every address there."""
    del request
    response = HttpResponse(_worker(), content_type="text/javascript")
    response.headers["Cache-Control"] = "no-cache"
    return response
