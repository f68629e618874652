"""Django's settings. What differs between machines comes from the environment, with sound defaults."""

import os
from pathlib import Path

from bridle.datafolder.health import UnwellError, why_no_file
from bridle.datafolder.where import data_folder, database, for_its_owner_only
from bridle.server.keys import key_file, secret_key

ROOT = Path(__file__).resolve().parents[2]
DATA = data_folder()
PAGE = Path(os.environ.get("BRIDLE_PAGE") or ROOT / "frontend" / "dist")

try:
    for_its_owner_only(DATA)
    SECRET_KEY = secret_key(key_file())
except OSError as unusable:
    raise UnwellError(why_no_file(unusable)[1]) from unusable
DEBUG = os.environ.get("BRIDLE_DEBUG") == "1"
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "[::1]"]

INSTALLED_APPS = [
    "bridle.server.house",
    "bridle.server.shoots",
    "bridle.server.runs",
    "bridle.server.kit",
    "bridle.server.prints",
    "bridle.server.commands",
]
MIDDLEWARE = [
    "bridle.server.one_shape.OneShape",
    "django.middleware.security.SecurityMiddleware",
    "bridle.server.headers.content_security_policy",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]
ROOT_URLCONF = "bridle.server.urls"
WSGI_APPLICATION = "bridle.server.wsgi.application"

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": database(DATA),
        "TEST": {"NAME": DATA / "test.sqlite3"},
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 20,
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;",
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

USE_TZ = True
TIME_ZONE = "UTC"
USE_I18N = False

# The built page. The names of its files carry a digest of their contents, so they never go stale.
WHITENOISE_ROOT = PAGE if PAGE.is_dir() else None
WHITENOISE_INDEX_FILE = False
WHITENOISE_MAX_AGE = 0
WHITENOISE_IMMUTABLE_FILE_TEST = r"^/assets/.+-[\w-]{8}\.\w+$"
STATIC_URL = "/static/"

X_FRAME_OPTIONS = "DENY"
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
SECURE_CROSS_ORIGIN_OPENER_POLICY = "same-origin"
CSRF_COOKIE_SAMESITE = "Strict"
# A plan has at most a megabyte; what is larger is refused before it is read.
DATA_UPLOAD_MAX_MEMORY_SIZE = 1_500_000

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "loggers": {
        "bridle": {"handlers": ["console"], "level": "INFO"},
        "django.request": {"handlers": ["console"], "level": "ERROR", "propagate": False},
    },
}
TEST_RUNNER = "bridle.server.testing.CountingRunner"
