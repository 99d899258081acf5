"""Figures of the server in the usual exposition format, added over its processes."""

from __future__ import annotations

import os
import time
from collections.abc import Callable, Iterator

from django.db.models import Count, Min
from django.http import HttpRequest, HttpResponseBase
from django.utils import timezone
from django_tasks import ResultStatus
from django_tasks.backends.database.models import DBTaskResult
from prometheus_client import (
    CONTENT_TYPE_LATEST,
    REGISTRY,
    CollectorRegistry,
    Counter,
    Histogram,
    generate_latest,
)
from prometheus_client.core import GaugeMetricFamily, Metric
from prometheus_client.multiprocess import MultiProcessCollector
from prometheus_client.registry import Collector

from audits.models import Audit
from jobs.models import WorkerSeen
from office.models import Erasure
from operation.logs import route_of

__all__ = ["MeasureMiddleware", "exposition"]

REQUESTS = Counter("evencoil_requests", "Requests answered", ["route", "method", "status"])
SECONDS = Histogram(
    "evencoil_request_seconds",
    "Time to answer [s]",
    ["route"],
    buckets=(0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10, 30),
)


class MeasureMiddleware:
    """Count every request and the time of its answer, by the pattern of its address."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponseBase]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        """Answer, then count."""
        begun = time.perf_counter()
        response = self.get_response(request)
        route = route_of(request)
        method = request.method if request.method in _METHODS else "other"
        REQUESTS.labels(route, method, str(response.status_code)).inc()
        SECONDS.labels(route).observe(time.perf_counter() - begun)
        return response


_METHODS = ("GET", "HEAD", "POST", "PUT", "PATCH", "DELETE")


class _Shared(Collector):
    """What all processes share, read from the database when it is asked for."""

    def collect(self) -> Iterator[Metric]:
        """Go through the figures."""
        tasks = GaugeMetricFamily("evencoil_tasks", "Tasks of workers by state", labels=["state"])
        counts = {
            str(state): count
            for state, count in DBTaskResult.objects.values_list("status").annotate(
                count=Count("pk")
            )
        }
        for state in ResultStatus:
            tasks.add_metric([state.value.lower()], counts.get(state.value, 0))
        yield tasks
        oldest = DBTaskResult.objects.filter(status=ResultStatus.READY).aggregate(
            at=Min("enqueued_at")
        )["at"]
        now = timezone.now()
        yield GaugeMetricFamily(
            "evencoil_oldest_task_seconds",
            "Age of the oldest waiting task [s]",
            value=0 if oldest is None else max(0.0, (now - oldest).total_seconds()),
        )
        seen = GaugeMetricFamily(
            "evencoil_worker_seen_seconds", "Since a worker was seen [s]", labels=["worker"]
        )
        for one in WorkerSeen.objects.all():
            seen.add_metric([one.name], (now - one.at).total_seconds())
        yield seen
        yield GaugeMetricFamily(
            "evencoil_audits_running",
            "Audits under way",
            value=Audit.objects.filter(state="running").count(),
        )
        yield GaugeMetricFamily(
            "evencoil_erasures_open",
            "Plants whose erasing was asked for and is not done",
            value=Erasure.objects.filter(done_at=None).count(),
        )


def exposition() -> tuple[bytes, str]:
    """Return the figures as text, and its content type."""
    registry = CollectorRegistry()
    if os.environ.get("PROMETHEUS_MULTIPROC_DIR"):
        MultiProcessCollector(registry)  # type: ignore[no-untyped-call]  # the package has no type here
        body = generate_latest(registry)
    else:
        body = generate_latest(REGISTRY)
    shared = CollectorRegistry()
    shared.register(_Shared())
    return body + generate_latest(shared), CONTENT_TYPE_LATEST
