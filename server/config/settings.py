"""Settings, all of them from the environment where they differ by place.

``./start`` and ``./check`` set the variables; nothing here knows a password.
"""

import os
from pathlib import Path

import ninja
from csp.constants import NONE, SELF

from operation.guard import refuse_unfit

BASE = Path(__file__).resolve().parents[2]
WEB_DIST = BASE / "web" / "dist"
FONTS = BASE / "web" / "node_modules" / "@fontsource"

# what must not serve a plant does not start
refuse_unfit(os.environ)
SECRET_KEY = os.environ.get("EVENCOIL_SECRET_KEY", "")
# keys that signed before: what they signed still holds; a key that leaked is not among them
SECRET_KEY_FALLBACKS = list(filter(None, os.environ.get("EVENCOIL_SECRET_KEY_OLD", "").split(",")))
DEBUG = False
# beside its own name a server answers this machine, which asks whether it is there
ALLOWED_HOSTS = [
    *filter(None, os.environ.get("EVENCOIL_HOSTS", "").split(",")),
    "127.0.0.1",
    "localhost",
]
IS_HTTPS = os.environ.get("EVENCOIL_HTTPS") == "1"
# made-up people may be tapped to sign in; a plant's own server never says anybody's password
IS_DEMO = os.environ.get("EVENCOIL_DEMO") == "1" and not IS_HTTPS

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "allauth",
    "allauth.account",
    "allauth.headless",
    "allauth.mfa",
    "allauth.usersessions",
    "csp",
    "ninja",
    "people",
    "plant",
    "jobs",
    "paper",
    "proving",
    "panel",
    "hunts",
    "drills",
    "schedules",
    "audits",
    "office",
    "operation",
    "django_tasks",
    "django_tasks.backends.database",
    "demo",
]
MIDDLEWARE = [
    "operation.logs.RequestMiddleware",
    "operation.metrics.MeasureMiddleware",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.middleware.http.ConditionalGetMiddleware",
    "api.middleware.VersionMiddleware",
    "api.middleware.PrivateMiddleware",
    "api.middleware.NamesMiddleware",
    "api.middleware.ProblemMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "allauth.account.middleware.AccountMiddleware",
    "allauth.usersessions.middleware.UserSessionsMiddleware",
    "api.again.OnceMiddleware",
    "office.seen.SeenMiddleware",
]
ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
APPEND_SLASH = False
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "APP_DIRS": True,
        "OPTIONS": {"context_processors": ["django.template.context_processors.request"]},
    }
]
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.postgresql",
        "NAME": os.environ.get("EVENCOIL_DB_NAME", "evencoil"),
        "USER": os.environ.get("EVENCOIL_DB_USER", "evencoil"),
        "PASSWORD": os.environ.get("EVENCOIL_DB_PASSWORD", ""),
        "HOST": os.environ.get("EVENCOIL_DB_HOST", "127.0.0.1"),
        "PORT": os.environ.get("EVENCOIL_DB_PORT", "5432"),
        # a database that was started again is met by a fresh connection
        "CONN_HEALTH_CHECKS": True,
        "CONN_MAX_AGE": int(os.environ.get("EVENCOIL_DB_KEEP_S", "60")),
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
CACHES = {
    "default": {
        "BACKEND": "django.core.cache.backends.db.DatabaseCache",
        "LOCATION": "cache_entries",
        # wrong tries at a password are counted here: nothing may crowd them out
        "OPTIONS": {"MAX_ENTRIES": 50_000},
    },
    # calculated answers, found by everything that decides them: never stale, only dropped
    "answers": {
        "BACKEND": "django.core.cache.backends.db.DatabaseCache",
        "LOCATION": "cache_answers",
        "TIMEOUT": 30 * 24 * 3600,
        "OPTIONS": {"MAX_ENTRIES": 5000},
    },
}
# long work goes to workers through the database, in the transaction that asks for it
TASKS = {
    "default": {
        "BACKEND": "django_tasks.backends.database.DatabaseBackend",
        "ENQUEUE_ON_COMMIT": False,
    }
}
# processes that answer heavy questions, of each serving process; 0 answers them in place
DESK_SEATS = int(os.environ.get("EVENCOIL_SEATS", "3"))
USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en"

AUTH_USER_MODEL = "people.User"
AUTHENTICATION_BACKENDS = ["allauth.account.auth_backends.AuthenticationBackend"]
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]
ACCOUNT_LOGIN_METHODS = {"username"}
ACCOUNT_SIGNUP_FIELDS = ["username*", "password1*"]
ACCOUNT_EMAIL_VERIFICATION = "none"
ACCOUNT_ADAPTER = "people.adapter.ClosedAdapter"
# a passkey signs in by itself: it stands beside the password, not behind it, so that a tablet
# that was dropped in the kiln locks nobody out
MFA_ADAPTER = "people.adapter.PasskeyAdapter"
MFA_SUPPORTED_TYPES = ["webauthn"]
MFA_PASSKEY_LOGIN_ENABLED = True
# WebAuthn asks for HTTPS but on a machine's own name
MFA_WEBAUTHN_ALLOW_INSECURE_ORIGIN = not IS_HTTPS
USERSESSIONS_TRACK_ACTIVITY = False
# the key is name and address together (people/adapter.py): no stranger locks a person out
ACCOUNT_RATE_LIMITS = {"login": "60/m/ip", "login_failed": "20/m/ip,5/5m/key"}
# unless a mail server is named, no mail leaves: whatever is sent lies in a file
EMAIL_FILE_PATH = Path(os.environ.get("EVENCOIL_MAIL_DIR", BASE / ".run" / "mail"))
EMAIL_HOST = os.environ.get("EVENCOIL_MAIL_HOST", "")
EMAIL_PORT = int(os.environ.get("EVENCOIL_MAIL_PORT", "587"))
EMAIL_HOST_USER = os.environ.get("EVENCOIL_MAIL_USER", "")
EMAIL_HOST_PASSWORD = os.environ.get("EVENCOIL_MAIL_PASSWORD", "")
EMAIL_USE_TLS = True
EMAIL_TIMEOUT = 20
DEFAULT_FROM_EMAIL = os.environ.get("EVENCOIL_MAIL_FROM", "even-coil@localhost")
EMAIL_BACKEND = (
    "django.core.mail.backends.smtp.EmailBackend"
    if EMAIL_HOST
    else "django.core.mail.backends.filebased.EmailBackend"
)
ACCOUNT_SESSION_REMEMBER = True
#: a signature wants a password given for it, not one given this morning [s]
ACCOUNT_REAUTHENTICATION_TIMEOUT = 120
HEADLESS_ONLY = True
HEADLESS_CLIENTS = ("browser",)
HEADLESS_FRONTEND_URLS = {"account_reset_password_from_key": "/new-password#{key}"}
ACCOUNT_EMAIL_SUBJECT_PREFIX = ""
# whoever asks for an address that nobody has gets no mail, and is not told
ACCOUNT_EMAIL_UNKNOWN_ACCOUNTS = False

SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = IS_HTTPS
# behind HTTPS nothing is answered in the clear, and browsers remember that for a year
SECURE_SSL_REDIRECT = IS_HTTPS
# this machine asks without TLS whether the server is there
SECURE_REDIRECT_EXEMPT = [r"^(health|ready|metrics)$"]
#: who asks for /metrics says it; without one only this machine may, and not behind a proxy
METRICS_TOKEN = os.environ.get("EVENCOIL_METRICS_TOKEN", "")
# the application server tells the client's own address: headers are not asked again
NINJA_NUM_PROXIES = 0
SECURE_HSTS_SECONDS = 365 * 24 * 3600 if IS_HTTPS else 0
SECURE_HSTS_INCLUDE_SUBDOMAINS = SECURE_HSTS_PRELOAD = IS_HTTPS
# set by the proxy that ends HTTPS in front; a client's own header is dropped there
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if IS_HTTPS else None
SESSION_COOKIE_SAMESITE = CSRF_COOKIE_SAMESITE = "Lax"
CSRF_FAILURE_VIEW = "api.problems.csrf_failure"
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
SECURE_CROSS_ORIGIN_OPENER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
DATA_UPLOAD_MAX_MEMORY_SIZE = 1_100_000
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        # Radix places its dialogs by style attributes
        "style-src": [SELF, "'unsafe-inline'"],
        "font-src": [SELF],
        "img-src": [SELF, "data:"],
        "connect-src": [SELF],
        "manifest-src": [SELF],
        "base-uri": [NONE],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
    }
}

STATIC_URL = "/static/"
STATIC_ROOT = BASE / "server" / "staticfiles"
# what is served is named here: packages' other pages are not part of the app
STATICFILES_FINDERS = ["django.contrib.staticfiles.finders.FileSystemFinder"]
# of the API package, the page that describes the interface
STATICFILES_DIRS: list[Path | tuple[str, Path]] = [
    *([WEB_DIST] if WEB_DIST.is_dir() else []),
    ("ninja", Path(ninja.__file__).parent / "static" / "ninja"),
]
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}
WHITENOISE_MAX_AGE = 3600


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:  # its own name
    """Tell whether a file's name carries a hash of its contents: Vite's do."""
    del path
    return url.startswith("/static/assets/")


# for people at a terminal, or one JSON object a line for whatever gathers logs
IS_JSON_LOG = os.environ.get("EVENCOIL_LOG") == "json"
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {
        "plain": {"format": "%(message)s"},
        "json": {"()": "operation.logs.JsonFormatter"},
    },
    "handlers": {
        "console": {
            "class": "logging.StreamHandler",
            "formatter": "json" if IS_JSON_LOG else "plain",
        }
    },
    "root": {"handlers": ["console"], "level": "WARNING"},
    "loggers": {
        "django.request": {"level": "ERROR"},
        "evencoil.actions": {"level": "INFO"},
        "evencoil.requests": {"level": "INFO" if IS_JSON_LOG else "WARNING"},
        "django_tasks": {"level": "WARNING"},
    },
}
