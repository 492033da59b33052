"""`./start`: database, migrations, demo, web server, and the way back from all of them."""

from __future__ import annotations

import argparse
import fcntl
import os
import secrets
import signal
import socket
import subprocess
import sys
from pathlib import Path
from typing import Any

from .backups import backup, restore
from .cluster import Cluster, Trouble, home, wait_for_end

CHECKOUT = Path(__file__).resolve().parent.parent.parent
LOOKS_EVERY = 0.5  # seconds between two looks at the database
EVERYWHERE = ("0.0.0.0", "::")
DEMO_LOGIN = "Sign in as  mira  (owner) or  tove  (maker), password  saltgrass-felt"


def arguments() -> argparse.Namespace:
    """The words behind ./start."""
    parser = argparse.ArgumentParser(prog="./start", description="Start Wembit on this machine.")
    parser.add_argument("--port", type=int, default=8470)
    parser.add_argument("--host", default="127.0.0.1")
    parser.add_argument("--empty", action="store_true", help="no demo data: the first visitor makes the studio")
    parser.add_argument("--demo", action="store_true", help="throw everything away and build the demo anew for today")
    parser.add_argument("--yes", action="store_true", help="do not ask before --demo or --restore")
    parser.add_argument("--stop", action="store_true", help="stop what runs")
    parser.add_argument("--backup", metavar="FILE", help="write the database and the pictures to FILE")
    parser.add_argument("--restore", metavar="FILE", help="put back what --backup wrote")
    parser.add_argument("--reset-password", metavar="NAME", help="set a new password for the person of that name")
    return parser.parse_args()


class House:
    """What one checkout runs: its folder, its cluster or a database given by DATABASE_URL, its server."""

    def __init__(self) -> None:
        self.folder = home(CHECKOUT)
        self.folder.mkdir(parents=True, exist_ok=True)
        self.given = os.environ.get("DATABASE_URL")
        self.cluster = None if self.given else Cluster(self.folder)
        self.started_cluster = False
        self.pid_file = self.folder / "server.pid"

    def open(self) -> None:
        address = self.given
        if self.cluster:
            self.started_cluster = not self.cluster.running()
            self.cluster.start()
            address = self.cluster.url
        os.environ["DATABASE_URL"] = address or ""
        os.environ.setdefault("WEMBIT_SECRET_KEY", self._secret())
        os.environ.setdefault(
            "OPENBLAS_NUM_THREADS", "1"
        )  # a worker a processor; more threads only wait for each other
        os.environ.setdefault("WEMBIT_MEDIA", str(self.folder / "media"))
        os.environ.setdefault("WEMBIT_STATIC", str(self.folder / "static"))
        os.environ.setdefault("WEMBIT_DAYS_FILE", str(self.folder / "days"))
        os.environ["DJANGO_SETTINGS_MODULE"] = "wembit.web.settings"
        Path(os.environ["WEMBIT_MEDIA"]).mkdir(parents=True, exist_ok=True)

    def close(self) -> None:
        if self.cluster and self.started_cluster:
            self.cluster.stop()

    def server(self) -> int | None:
        """The process id of the web server that runs from this checkout."""
        try:
            pid = int(self.pid_file.read_text())
            return pid if b"gunicorn" in Path(f"/proc/{pid}/cmdline").read_bytes() else None
        except (OSError, ValueError):
            return None

    def _secret(self) -> str:
        path = self.folder / "secret"
        if not path.exists():
            with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as file:
                file.write(secrets.token_urlsafe(50))
        return path.read_text()


def manage(*words: str) -> None:
    """Run a command of Django's. Raises `Trouble`."""
    done = subprocess.run([sys.executable, str(CHECKOUT / "manage.py"), *words], cwd=CHECKOUT)
    if done.returncode:
        raise Trouble(f"“manage.py {' '.join(words)}” did not work; its message stands above.")


# Bring the database, what was planned in it, and the pictures to what this version knows.
MIGRATE = ("migrate --verbosity 0", "follow_arithmetic", "learn_hands", "sweep_pictures")


def prepare(options: argparse.Namespace) -> None:
    """Migrations, static files and, unless it is asked not to, the demo."""
    demo = ["demo --anew"] if options.demo else [] if options.empty else ["demo"]
    manage("in_turn", *MIGRATE, "collectstatic --noinput --verbosity 0", *demo)


def asked(question: str, options: argparse.Namespace) -> bool:
    """Whether the person at the terminal agrees; --yes agrees to all."""
    return options.yes or (sys.stdin.isatty() and input(f"{question} Type yes: ").strip() == "yes")


def port_is_free(host: str, port: int) -> None:
    """Raises `Trouble` where something listens there already."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            raise Trouble(
                f"Port {port} is in use. Choose another: ./start --port {port + 1}, or stop what runs there (./start --stop)."
            ) from None


def own_names() -> list[str]:
    """This machine's address on its network and its name, as a phone beside it calls them."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(("192.0.2.1", 9))  # sends nothing; asks which address would be used
            address = probe.getsockname()[0]
        except OSError:
            address = "127.0.0.1"
    return [address, socket.gethostname()]


def serve(house: House, options: argparse.Namespace) -> int:
    """Run gunicorn until it ends or is told to."""
    names = [options.host] if options.host not in EVERYWHERE else own_names()
    allowed = os.environ.get("WEMBIT_ALLOWED_HOSTS", "127.0.0.1 localhost [::1]").replace(",", " ").split()
    os.environ["WEMBIT_ALLOWED_HOSTS"] = " ".join(dict.fromkeys([*allowed, *names]))
    command = [sys.executable, "-m", "gunicorn", "-c", str(CHECKOUT / "wembit/launch/gunicorn.py")]
    command += ["-b", f"{options.host}:{options.port}", "wembit.web.wsgi:application"]
    scale, supplier = start_scale(options.port + 1), start_supplier(options.port + 2)
    letters = subprocess.Popen(
        [sys.executable, str(CHECKOUT / "manage.py"), "send_letters", "--every", "15"],
        cwd=CHECKOUT,
        start_new_session=True,
    )
    server = subprocess.Popen(command, cwd=CHECKOUT, start_new_session=True)
    house.pid_file.write_text(str(server.pid))

    def end(*_: Any) -> None:
        server.terminate()

    signal.signal(signal.SIGINT, end)
    signal.signal(signal.SIGTERM, end)
    signal.signal(signal.SIGHUP, end)
    print("\nWembit is at " + "  ".join(f"http://{name}:{options.port}/" for name in names))
    if scale:
        print(f"A scale that is not there stands at {os.environ['WEMBIT_SCALE']}/")
    if supplier:
        print(f"A supplier that is not there stands at {os.environ['WEMBIT_SUPPLIER']}/")
    print("The first visitor makes the studio." if options.empty else DEMO_LOGIN)
    print("Ctrl-C stops it.", flush=True)
    code = until_it_ends(server, house)
    letters.terminate()
    letters.wait()
    for stand_in in filter(None, (scale, supplier)):
        stand_in.communicate()  # its input ends, and so does it
    house.pid_file.unlink(missing_ok=True)
    return 0 if code in (0, -signal.SIGTERM) else code


def start_scale(port: int) -> subprocess.Popen | None:
    """The stand-in of the bench's scale on that port of this machine or another free one; none where a bridge is told by
    WEMBIT_SCALE. It ends with this process.
    """
    return _start_stand_in("scale", "WEMBIT_SCALE", port)


def start_supplier(port: int) -> subprocess.Popen | None:
    """The stand-in of a supplier, likewise, or none by WEMBIT_SUPPLIER. In the demo a day can be passed on it."""
    days = Path(os.environ.get("WEMBIT_DAYS_FILE", ""))
    return _start_stand_in("supplier", "WEMBIT_SUPPLIER", port, *([str(days)] if days.is_file() else []))


def _start_stand_in(which: str, told_by: str, port: int, *more: str) -> subprocess.Popen | None:
    if told_by in os.environ:
        return None
    with socket.socket() as probe:
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    os.environ[told_by] = f"http://127.0.0.1:{port}"
    command = [sys.executable, "-m", f"wembit.standins.{which}", str(port), *more, "--with-parent"]
    return subprocess.Popen(command, cwd=CHECKOUT, stdin=subprocess.PIPE, start_new_session=True)


def until_it_ends(server: subprocess.Popen, house: House) -> int:
    """The server's exit code when it ends; until then the database is brought back whenever something has ended it."""
    said = ""
    while True:
        try:
            return server.wait(timeout=LOOKS_EVERY)
        except subprocess.TimeoutExpired:
            if not house.cluster or house.cluster.running():
                continue
        try:
            house.cluster.start(elsewhere=False)
            now = "The database had ended; it is back."
        except Trouble as trouble:
            now = f"The database does not come back: {trouble}"
        if now != said or house.cluster.running():
            print(now, file=sys.stderr, flush=True)
        said = now


def stop(house: House) -> None:
    """End the server and the cluster of this folder."""
    pid = house.server()
    if pid:
        os.kill(pid, signal.SIGTERM)
        wait_for_end(pid)
    if house.cluster:
        house.cluster.stop()
    print("Stopped." if pid else "Nothing was running.")


def main() -> int:
    """What ./start does; the exit code."""
    options = arguments()
    house = House()
    if options.stop:
        stop(house)
        return 0
    with open(house.folder / "lock", "w") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            if not (options.backup or options.reset_password):
                raise Trouble("Wembit already runs from this folder. ./start --stop ends it.") from None
        try:
            house.open()
            if options.backup:
                path = Path(options.backup).resolve()
                print(f"Kept in {path}: {backup(path)}.")
            elif options.restore:
                if not asked("This replaces everything with what is in the file.", options):
                    raise Trouble("Nothing was changed. Add --yes, or answer yes.")
                path = Path(options.restore).resolve()
                about = restore(path)
                manage("in_turn", *MIGRATE)
                Path(os.environ["WEMBIT_DAYS_FILE"]).unlink(missing_ok=True)  # days pass in the demo alone
                print(f"Restored from {path}, {about}. Everybody signs in anew.")
            elif options.reset_password:
                manage("changepassword", options.reset_password)
            else:
                port_is_free(options.host, options.port)
                if options.demo and not asked("This throws the whole studio away and builds the demo anew.", options):
                    raise Trouble("Nothing was changed. Add --yes, or answer yes.")
                prepare(options)
                return serve(house, options)
        finally:
            house.close()
    return 0


if __name__ == "__main__":
    try:
        sys.exit(main())
    except Trouble as trouble:
        print(trouble, file=sys.stderr)
        sys.exit(1)
    except KeyboardInterrupt:
        sys.exit(130)
