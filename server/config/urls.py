"""Addresses: the API, sign-in, and the one page that holds the screens."""

from django.urls import include, path, re_path

from api.page import description_of_api, page, service_worker
from config.api import api, signed_in
from operation.health import health, metrics, ready

description = signed_in(description_of_api)
urlpatterns = [
    path("api/auth/", include("allauth.headless.urls")),
    # the package makes it anew for every request, which takes seconds
    path("api/openapi.json", description),
    path("api/", api.urls),
    path("sw.js", service_worker),
    path("health", health),
    path("ready", ready),
    path("metrics", metrics),
    re_path(r"^(?!api/|static/).*$", page),
]
