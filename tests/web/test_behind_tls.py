"""Behind a proxy with a certificate nothing of Django's checks for a deployment is left to do."""

import os
import secrets
import subprocess
import sys
from pathlib import Path

TLS = {
    "WEMBIT_TRUSTED_ORIGINS": "https://felt.example", "WEMBIT_ALLOWED_HOSTS": "felt.example",
    "DJANGO_SETTINGS_MODULE": "wembit.web.settings",
}  # fmt: skip
ASKED = """
import django; django.setup()
from django.test import Client
plain, over_tls = (Client(headers=more).get("/sign-in/", headers={"Host": "felt.example"}) for more in
                   ({}, {"X-Forwarded-Proto": "https"}))
print(plain.status_code, plain.headers["Location"], "Strict-Transport-Security" in over_tls.headers)
print(over_tls.headers["X-Frame-Options"], Client().get("/health/", headers={"Host": "felt.example"}).status_code)
"""


def run(*words: str, **more: str) -> str:
    environment = {**os.environ, **TLS, "WEMBIT_SECRET_KEY": secrets.token_urlsafe(60), **more}
    done = subprocess.run(
        [sys.executable, *words],
        cwd=Path(__file__).parents[2],
        env=environment,
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 0, done.stderr[-2000:]
    return done.stdout + done.stderr


def test_the_checks_for_a_deployment_find_nothing():
    assert "no issues" in run("manage.py", "check", "--deploy", "--fail-level", "WARNING")


def test_plain_requests_are_led_to_tls_and_the_launcher_still_hears_that_it_lives(tmp_path):
    run("manage.py", "collectstatic", "--no-input", WEMBIT_STATIC=str(tmp_path))
    said = run("-c", ASKED, WEMBIT_STATIC=str(tmp_path)).split()
    assert said[:3] == ["301", "https://felt.example/sign-in/", "True"]
    assert said[-2:] == ["DENY", "200"]
