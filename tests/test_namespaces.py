"""A server at home and its guests on hosts of their own: three network namespaces with a cable
each, made and taken away here. Expected: what docs/home-server.md promises.
"""

import contextlib
import json
import os
import re
import shutil
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from typing import Any

BOX, PHONE, PROXY = "noxel-box", "noxel-phone", "noxel-proxy"
HOSTS = {PHONE: "10.77.1", PROXY: "10.77.2"}
"""The networks of the two cables from the box: it is 1 on both, who is at the other end is 2."""
NAME = "nas.local"
_ASK = """
import http.client, json, socket, ssl, sys
call = json.loads(sys.argv[1])
if call["authority"]:
    context = ssl.create_default_context(cafile=call["authority"])
    there = http.client.HTTPSConnection(call["name"], call["port"], context=context, timeout=20)
    there._create_connection = lambda _, *more: socket.create_connection(
        (call["address"], call["port"]), *more
    )
else:
    there = http.client.HTTPConnection(call["address"], call["port"], timeout=20)
there.request(call["method"], call["path"], call["body"] or None, call["headers"])
answer = there.getresponse()
print(json.dumps([answer.status, answer.read().decode(), answer.getheader("set-cookie")]))
"""


def _ip(*words: str) -> None:
    subprocess.run(["ip", *words], check=True, capture_output=True)


@unittest.skipUnless(
    shutil.which("ip") and getattr(os, "geteuid", lambda: 1)() == 0,
    "hosts of its own need iproute2 and root",
)
class OnHostsOfTheirOwn(unittest.TestCase):
    def setUp(self) -> None:
        for host in (BOX, PHONE, PROXY):
            with contextlib.suppress(subprocess.CalledProcessError):
                _ip("netns", "del", host)  # of a run that was killed
            try:
                _ip("netns", "add", host)
            except subprocess.CalledProcessError:
                self.skipTest("this machine allows no hosts of its own")
            self.addCleanup(_ip, "netns", "del", host)
            _ip("-n", host, "link", "set", "lo", "up")
        for cable, (host, network) in enumerate(HOSTS.items()):
            ends = (f"nx{cable}a", f"nx{cable}b")
            _ip(
                "link", "add", ends[0], "netns", BOX, "type", "veth", "peer", ends[1], "netns", host
            )
            for namespace, end, address in ((BOX, ends[0], 1), (host, ends[1], 2)):
                _ip("-n", namespace, "address", "add", f"{network}.{address}/24", "dev", end)
                _ip("-n", namespace, "link", "set", end, "up")
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def on(self, host: str, *call: str) -> list[str]:
        return ["ip", "netns", "exec", host, sys.executable, *call]

    def serve(self, *options: str) -> None:
        call = self.on(BOX, "-m", "noxel", "serve", "--data", str(self.folder), *options)
        server = subprocess.Popen(
            call, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True
        )
        self.addCleanup(server.communicate, timeout=30)
        self.addCleanup(server.terminate)
        assert server.stdout  # noqa: S101
        for line in server.stdout:  # the last line names the place of an invitation, or the proxy
            if "/join?" in line or "through the proxy" in line:
                break

    def invitation(self) -> str:
        call = self.on(BOX, "-m", "noxel", "invite", "--data", str(self.folder))
        printed = subprocess.run(call, check=True, capture_output=True, text=True).stdout
        token = re.search(r"/join\?invitation=(\S+)", printed)
        self.assertIsNotNone(token, printed)
        return token[1] if token else ""

    def ask(
        self,
        host: str,
        path: str,
        port: int,
        body: str = "",
        /,
        *,
        tls: bool = True,
        **headers: str,
    ) -> Any:
        sent = {name.replace("_", "-"): value for name, value in headers.items()}
        call = {
            "address": f"{HOSTS[host]}.1" if host in HOSTS else "127.0.0.1",
            "authority": str(self.folder / "share" / "authority.pem") if tls else "",
            "name": NAME,
            "port": port,
            "method": "POST" if body else "GET",
            "path": path,
            "body": body,
            "headers": sent
            | ({"content-type": "application/x-www-form-urlencoded"} if body else {}),
        }
        process = subprocess.run(
            self.on(host, "-c", _ASK, json.dumps(call)), capture_output=True, text=True, timeout=60
        )
        self.assertEqual(process.returncode, 0, process.stderr)
        return json.loads(process.stdout)

    def paired(self, host: str, port: int, origin: str, /, **more: Any) -> str:
        form = f"invitation={self.invitation()}&name=Guest"
        status, page, cookie = self.ask(host, "/join", port, form, origin=origin, **more)
        self.assertEqual(status, 200, page)
        return str(cookie).partition(";")[0]

    def test_a_phone_comes_by_the_servers_own_name(self) -> None:
        self.serve("--share", "--name", NAME, "--port", "8710", "--share-port", "8711")
        self.assertEqual(self.ask(PHONE, "/api/rigs", 8711)[0], 401)
        self.assertEqual(self.ask(PHONE, "/api/rigs", 8711, host="other.example")[0], 400)
        cookie = self.paired(PHONE, 8711, f"https://{NAME}:8711")
        self.assertEqual(self.ask(PHONE, "/api/rigs", 8711, cookie=cookie)[:2], [200, "[]"])

    def test_what_comes_past_the_proxy_is_nobody(self) -> None:
        self.serve("--behind-proxy", f"{HOSTS[PROXY]}.2", "--name", NAME, "--port", "8710")
        told: dict[str, Any] = {"tls": False, "x_forwarded_proto": "https", "host": NAME}
        self.assertEqual(self.ask(PROXY, "/api/rigs", 8710, **told)[0], 401)
        cookie = self.paired(PROXY, 8710, f"https://{NAME}", **told)
        self.assertEqual(self.ask(PROXY, "/api/rigs", 8710, cookie=cookie, **told)[:2], [200, "[]"])
        for host in (PHONE, BOX):  # from beside the proxy, with all that it would say
            status, text, _ = self.ask(host, "/api/rigs", 8710, cookie=cookie, **told)
            self.assertEqual(status, 403, (host, text))
