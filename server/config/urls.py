"""Addresses: the API, sign-in, and the one page that holds the screens."""

from django.urls import include, path, re_path

from api.page import page, service_worker
from config.api import api
from operation.health import health, metrics, ready

urlpatterns = [
    path("api/auth/", include("allauth.headless.urls")),
    path("api/", api.urls),
    path("sw.js", service_worker),
    path("health", health),
    path("ready", ready),
    path("metrics", metrics),
    re_path(r"^(?!api/|static/).*$", page),
]
