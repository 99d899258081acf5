"""The deployment as docs/operating.md says it: roles, backup, restore, migrations, two servers."""

from __future__ import annotations

import json
import os
import re
import socket
import subprocess
import sys
import time
import urllib.request
from http.cookiejar import CookieJar
from pathlib import Path

import psycopg
import pytest

from demo.larkfall import PASSWORD

ROOT = Path(__file__).resolve().parents[3]
#: apps whose newest migration changes tables that hold rows; the only one of an app makes its tables
MOVING = sorted(
    path.name
    for path in (ROOT / "server").iterdir()
    if len(list((path / "migrations").glob("0*.py"))) > 1
)
#: databases of this worker's own
WORKER = os.environ.get("PYTEST_XDIST_WORKER", "own")
DEMO, RESTORED, ROLES = NAMES = tuple(
    f"op_{name}_{WORKER}" for name in ("demo", "restored", "roles")
)


def environment(name):
    """Return what the server's settings read, for a database of this cluster."""
    return {
        **os.environ,
        "EVENCOIL_DB_NAME": name,
        "EVENCOIL_DEMO": "1",
        "EVENCOIL_SECRET_KEY": "t" * 50,
    }


def linked(name, user=None, password=None):
    """Return a connection to a database."""
    return psycopg.connect(
        host="127.0.0.1",
        port=os.environ["EVENCOIL_DB_PORT"],
        user=user or os.environ["EVENCOIL_DB_USER"],
        password=password or os.environ["EVENCOIL_DB_PASSWORD"],
        dbname=name,
        autocommit=True,
    )


def libpq(name, user=None, password=None):
    """Return libpq's own variables."""
    return {
        **os.environ,
        "PGHOST": "127.0.0.1",
        "PGPORT": os.environ["EVENCOIL_DB_PORT"],
        "PGUSER": user or os.environ["EVENCOIL_DB_USER"],
        "PGPASSWORD": password or os.environ["EVENCOIL_DB_PASSWORD"],
        "PGDATABASE": name,
    }


def manage(name, *command):
    """Run a management command on a database."""
    subprocess.run(
        [sys.executable, "server/manage.py", *command],
        cwd=ROOT,
        env=environment(name),
        check=True,
        capture_output=True,
        timeout=300,
    )


@pytest.fixture(scope="module")
def demo():
    """A database with the demo in it; what the tests make beside it goes with it."""
    with linked(os.environ["EVENCOIL_DB_NAME"]) as line:
        for name in NAMES:
            line.execute(f"DROP DATABASE IF EXISTS {name} WITH (FORCE)")
        # the whole check has laid one out already
        like = os.environ.get("EVENCOIL_TEST_DEMO", "template1")
        line.execute(f"CREATE DATABASE {DEMO} TEMPLATE {like}")
    if like == "template1":
        manage(DEMO, "migrate", "-v", "0")
        manage(DEMO, "createcachetable")
        manage(DEMO, "demo")
    yield DEMO
    with linked(os.environ["EVENCOIL_DB_NAME"]) as line:
        for name in NAMES:
            line.execute(f"DROP DATABASE IF EXISTS {name} WITH (FORCE)")


def tables(line):
    """Return the tables of a database."""
    rows = line.execute("SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY 1")
    return [row[0] for row in rows]


def everything(name):
    """Return every row of every table as text, and where every sequence stands."""
    with linked(name) as line:
        found = {
            table: [row[0] for row in line.execute(f'SELECT t::text FROM "{table}" t ORDER BY 1')]
            for table in tables(line)
        }
        found["sequences"] = line.execute(
            "SELECT sequencename, last_value FROM pg_sequences ORDER BY 1"
        ).fetchall()
    return found


def test_a_backup_restores_row_by_row(demo, tmp_path):
    """What was dumped is what comes back: every row, every counter; nothing is written over."""
    file = tmp_path / "evencoil.dump"
    subprocess.run([ROOT / "deploy/backup.sh", file], env=libpq(demo), check=True, timeout=120)
    assert oct(file.stat().st_mode)[-3:] == "600"
    restore = [ROOT / "deploy/restore.sh", file, RESTORED]
    subprocess.run(restore, env=libpq("postgres"), check=True, timeout=120)
    before, after = everything(demo), everything(RESTORED)
    assert sum(len(rows) for rows in before.values()) > 500
    assert before == after
    again = subprocess.run(
        restore, env=libpq("postgres"), capture_output=True, check=False, timeout=60
    )
    assert again.returncode != 0
    assert everything(RESTORED) == before


def test_half_a_backup_is_no_backup(demo, tmp_path):
    """A dump that fails leaves the last good file; a file cut in half makes no database."""
    file = tmp_path / "evencoil.dump"
    subprocess.run([ROOT / "deploy/backup.sh", file], env=libpq(demo), check=True, timeout=120)
    whole = file.read_bytes()
    lost = {**libpq(demo), "PGPASSWORD": "wrong"}
    failed = subprocess.run(
        [ROOT / "deploy/backup.sh", file], env=lost, capture_output=True, check=False, timeout=60
    )
    assert failed.returncode != 0
    assert file.read_bytes() == whole
    assert [path.name for path in tmp_path.iterdir()] == [file.name]
    file.write_bytes(whole[: len(whole) // 2])
    broken = subprocess.run(
        [ROOT / "deploy/restore.sh", file, ROLES],
        env=libpq("postgres"),
        capture_output=True,
        check=False,
        timeout=60,
    )
    assert broken.returncode != 0
    with linked(os.environ["EVENCOIL_DB_NAME"]) as line:
        line.execute(f"DROP DATABASE IF EXISTS {ROLES} WITH (FORCE)")


#: each app one step back and forward again, in one process; what is counted at every stop
BACK_AND_FORTH = """
import json, sys
import django
django.setup()
from django.core.management import call_command
from django.db import connection

def counts():
    with connection.cursor() as cursor:
        names = connection.introspection.table_names(cursor)
        found = {}
        for name in names:
            cursor.execute(f'SELECT count(*) FROM "{name}"')
            found[name] = cursor.fetchone()[0]
    return found

said = {"": counts()}
for app, before in json.loads(sys.argv[1]):
    call_command("migrate", app, before, verbosity=0)
    back = counts()
    call_command("migrate", verbosity=0)
    said[app] = [back, counts()]
print(json.dumps(said))
"""


def test_every_newest_migration_goes_back_and_forth(demo):
    """With the demo's rows in it: no table that both versions have loses a row."""
    steps = {}
    for app in MOVING:
        found = sorted(path.stem for path in (ROOT / "server" / app / "migrations").glob("0*.py"))
        steps[app] = found[-2]
    done = subprocess.run(
        [sys.executable, "-c", BACK_AND_FORTH, json.dumps(list(steps.items()))],
        cwd=ROOT / "server",
        env={**environment(demo), "DJANGO_SETTINGS_MODULE": "config.settings"},
        check=True,
        capture_output=True,
        text=True,
        timeout=300,
    )
    said = json.loads(done.stdout)
    before = said.pop("")
    # what Django notes of its own models changes with them
    notes = {"django_content_type", "auth_permission", "django_migrations"}
    assert set(said) == set(MOVING)
    for app, (back, forth) in said.items():
        assert set(forth) == set(before), app
        # a table that only the newer version has comes back empty: its rows stay empty from then on
        lost = {name for name in before if name not in back}
        for name in set(before) - notes - lost:
            assert back[name] == forth[name] == before[name], (app, name)
        before = forth


def test_the_application_changes_rows_and_no_table(demo):
    """Roles of least privilege as deploy/roles.sql makes them."""
    own = os.environ["EVENCOIL_DB_NAME"]
    roles = ("evencoil_owner", "evencoil_app", "evencoil_backup")
    words = {"owner": "o-word", "app": "a-word", "backup": "b-word"}
    sql = (ROOT / "deploy/roles.sql").read_text()
    for name, word in words.items():
        sql = sql.replace(f":{name};", f"'{word}';")
    with linked(own) as line:
        line.execute(f"DROP DATABASE IF EXISTS {ROLES} WITH (FORCE)")
        line.execute(f"CREATE DATABASE {ROLES}")
    try:
        with linked(ROLES) as line:
            line.execute(re.sub(r"--.*", "", sql))
        migrated = {
            **environment(ROLES),
            "EVENCOIL_DB_USER": "evencoil_owner",
            "EVENCOIL_DB_PASSWORD": "o-word",
        }
        for command in (("migrate", "-v", "0"), ("createcachetable",)):
            subprocess.run(
                [sys.executable, "server/manage.py", *command],
                cwd=ROOT,
                env=migrated,
                check=True,
                capture_output=True,
                timeout=300,
            )
        with linked(ROLES, "evencoil_app", "a-word") as line:
            line.execute("INSERT INTO jobs_workerseen VALUES ('w', now())")
            line.execute("UPDATE jobs_workerseen SET at = now()")
            line.execute("DELETE FROM jobs_workerseen")
            for refused in (
                "CREATE TABLE mine (n int)",
                "DROP TABLE jobs_workerseen",
                "ALTER TABLE jobs_workerseen ADD COLUMN n int",
                "TRUNCATE people_actionlog CASCADE",
            ):
                with pytest.raises(psycopg.errors.InsufficientPrivilege):
                    line.execute(refused)
        with linked(ROLES, "evencoil_backup", "b-word") as line:
            line.execute("SELECT count(*) FROM people_user")
            with pytest.raises(psycopg.errors.InsufficientPrivilege):
                line.execute("DELETE FROM people_user")
    finally:
        with linked(own) as line:
            line.execute(f"DROP DATABASE IF EXISTS {ROLES} WITH (FORCE)")
            for role in roles:
                line.execute(f"DROP ROLE IF EXISTS {role}")


class Browser:
    """Somebody's cookies, at several servers."""

    def __init__(self):
        self.jar = CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))

    def ask(self, url, body=None, method=None):
        """Ask a server; return its JSON."""
        token = next((one.value for one in self.jar if one.name == "csrftoken"), "")
        request = urllib.request.Request(
            url,
            data=None if body is None else json.dumps(body).encode(),
            method=method,
            headers={"Content-Type": "application/json", "X-CSRFToken": token},
        )
        with self.opener.open(request, timeout=60) as answer:
            said = answer.read()
        return json.loads(said) if said[:1] in b"{[" else None


@pytest.fixture
def two_servers(demo):
    """Two application servers on one database."""
    ports, processes = [], []
    for serving in ("2", "1"):
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            ports.append(probe.getsockname()[1])
        processes.append(
            subprocess.Popen(
                [sys.executable, "tools/web.py", str(ports[-1]), serving, "4"],
                cwd=ROOT,
                env={**environment(demo), "EVENCOIL_SEATS": "1"},
            )
        )
    try:
        for port in ports:
            for _ in range(300):
                try:
                    urllib.request.urlopen(f"http://127.0.0.1:{port}/health", timeout=5).close()
                    break
                except OSError:
                    time.sleep(0.2)
        yield [f"http://127.0.0.1:{port}" for port in ports]
    finally:
        for process in processes:
            process.terminate()
        for process in processes:
            process.wait(30)


def test_servers_keep_no_state(two_servers):
    """Signed in at one, known at the other; what one keeps the other shows; figures add up."""
    one, other = two_servers
    marta = Browser()
    marta.ask(f"{one}/api/auth/browser/v1/config")
    marta.ask(f"{one}/api/auth/browser/v1/auth/login", {"username": "marta", "password": PASSWORD})
    assert marta.ask(f"{other}/api/session")["username"] == "marta"
    marta.ask(f"{other}/api/w/larkfall/motors", {"tag": "OP-1"})
    tags = [motor["tag"] for motor in marta.ask(f"{one}/api/w/larkfall/yard?q=OP-1")["motors"]]
    assert tags == ["OP-1"]
    # two processes answer at one address: their figures are added
    for _ in range(20):
        marta.ask(f"{one}/api/session")
    text = urllib.request.urlopen(f"{one}/metrics", timeout=30).read().decode()
    counted = [
        float(line.rsplit(" ", 1)[1])
        for line in text.splitlines()
        if line.startswith("evencoil_requests_total") and 'route="/api/session"' in line
    ]
    assert sum(counted) >= 20
    assert urllib.request.urlopen(f"{other}/ready", timeout=30).status == 200
