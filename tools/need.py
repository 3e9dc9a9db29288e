"""Says plainly what this machine still needs, and what to install; Chromium and LibreOffice are
installed where that is possible.

Runs on any Python 3 with nothing installed: ``python3 tools/need.py python | node | chromium |
office``.
"""

import os
import re
import shutil
import subprocess
import sys


def version_of(command: str) -> "tuple[int, ...] | None":
    """The version that a command prints, as numbers, or None when it is not there."""
    path = shutil.which(command)
    if path is None:
        return None
    printed = subprocess.run(
        [path, "--version"], capture_output=True, text=True, check=False
    ).stdout
    return tuple(int(part) for part in re.findall(r"\d+", printed)[:3])


def need_python() -> "str | None":
    """Python itself, recent enough, with venv."""
    if sys.version_info < (3, 11):  # noqa: UP036
        return (
            f"Noxel needs Python 3.11 or newer; this is {sys.version.split()[0]}. Name "
            "another: make PYTHON=python3.12 …"
        )
    try:
        import ensurepip  # noqa: F401
        import venv  # noqa: F401
    except ImportError:
        return "Python's venv module is missing. Install it (Debian: apt-get install python3-venv)."
    return None


def need_node() -> "str | None":
    """Node and npm, recent enough to build the page."""
    found = version_of("node")
    if found is None or found < (20, 19) or version_of("npm") is None:
        have = ".".join(map(str, found)) if found else "none"
        return (
            f"Noxel's page is built with Node 20.19 or newer and npm; found {have}. Install it "
            "from your system's packages."
        )
    return None


def _installed(commands: "tuple[str, ...]", package: str) -> bool:
    """Whether one of the commands is there; installed with apt-get when this is root on Debian."""
    if any(map(shutil.which, commands)):
        return True
    if not (shutil.which("apt-get") and hasattr(os, "geteuid") and os.geteuid() == 0):
        return False
    print(f"Installing {package} for the tests …", flush=True)
    for call in (
        ["apt-get", "update", "-qq"],
        ["apt-get", "install", "-y", "-qq", "--no-install-recommends", package],
    ):
        env = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
        if subprocess.run(
            call, env=env, stdin=subprocess.DEVNULL, stdout=subprocess.DEVNULL, check=False
        ).returncode:
            break
    return any(map(shutil.which, commands))


def need_chromium() -> "str | None":
    """Chromium for the browser tests; the one without a window, which is quicker, if possible."""
    if (
        os.environ.get("NOXEL_CHROMIUM")
        or _installed(("chromium-headless-shell",), "chromium-headless-shell")
        or _installed(("chromium", "chromium-browser"), "chromium")
    ):
        if _installed(("certutil",), "libnss3-tools"):
            return None
        return (
            "The tests of pairing need certutil. Install it (Debian: apt-get install "
            "libnss3-tools)."
        )
    return (
        "The browser tests need Chromium. Install it (Debian: apt-get install "
        "chromium-headless-shell), or name it in NOXEL_CHROMIUM."
    )


def need_office() -> "str | None":
    """LibreOffice, which computes the workbook again in the tests."""
    if _installed(("soffice",), "libreoffice-calc-nogui"):
        return None
    return (
        "The tests of the workbook need LibreOffice. Install it (Debian: apt-get install "
        "libreoffice-calc-nogui)."
    )


def main() -> int:
    """Check what is named; exits 1 with plain words when something is missing."""
    says = {
        "python": need_python,
        "node": need_node,
        "chromium": need_chromium,
        "office": need_office,
    }[sys.argv[1]]()
    if says:
        print(says, file=sys.stderr)
    return 1 if says else 0


if __name__ == "__main__":
    sys.exit(main())
