"""A server at home: behind a proxy nobody is the owner, own names, dated copies, a unit to start it
with. The server is the real command; the proxy a plain one of the test's own.
"""

import contextlib
import datetime
import http.client
import io
import json
import os
import re
import subprocess
import sys
import tempfile
import time
import unittest
from pathlib import Path
from unittest import mock

from cryptography import x509

from noxel.cli import main
from noxel.errors import StorageFault
from noxel.serving import listen, unit
from noxel.share import Addresses, Authority, Invitations
from noxel.store.backup import backup_kept
from noxel.store.database import Database

NAME = "nas.local"
FORM = {"content-type": "application/x-www-form-urlencoded"}


class BehindAProxy(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        with contextlib.closing(listen(0)) as free:
            self.port = free.getsockname()[1]
        call = [sys.executable, "-m", "noxel", "serve", "--data", folder.name]
        call += ["--port", str(self.port), "--behind-proxy", "127.0.0.1", "--name", NAME]
        self.server = subprocess.Popen(
            call, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True
        )
        self.addCleanup(self.stop)
        assert self.server.stdout  # noqa: S101
        self.assertIn(f"https://{NAME}, through the proxy", self.server.stdout.readline())

    def stop(self) -> str:
        if self.server.poll() is None:
            self.server.terminate()
        return self.server.communicate(timeout=30)[1] if not self.server.stderr.closed else ""  # type: ignore[union-attr]

    def ask(
        self, method: str, path: str, body: str = "", **headers: str
    ) -> tuple[int, str, dict[str, str]]:
        """What the proxy passes on: its own headers, and what the browser sent."""
        connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=20)
        with contextlib.closing(connection):
            usual = {"host": NAME, "x-forwarded-proto": "https", "x-forwarded-for": "192.0.2.9"}
            sent = usual | {name.replace("_", "-"): value for name, value in headers.items()}
            sent = {name: value for name, value in sent.items() if value}
            connection.request(method, path, body or None, sent)
            answer = connection.getresponse()
            return answer.status, answer.read().decode(), dict(answer.getheaders())

    def invite(self, *more: str) -> str:
        with contextlib.redirect_stdout(io.StringIO()) as said:
            self.assertEqual(main(["invite", "--data", str(self.folder), *more]), 0)
        join = re.search(rf"https://{NAME}/join\?invitation=(\S+)", said.getvalue())
        self.assertIsNotNone(join, said.getvalue())
        return join[1] if join else ""

    def test_everybody_pairs_and_nobody_is_the_owner(self) -> None:
        self.assertEqual(self.ask("GET", "/api/rigs")[0], 401)
        self.assertEqual(self.ask("GET", "/api/rigs", x_forwarded_proto="http")[0], 403)
        self.assertEqual(self.ask("GET", "/api/rigs", x_forwarded_proto="")[0], 403)
        # a proxy that makes every request look like one of this machine's own
        here = f"127.0.0.1:{self.port}"
        self.assertEqual(self.ask("GET", "/api/rigs", host=here)[0], 400)
        self.assertEqual(self.ask("GET", "/api/rigs", x_forwarded_host="other.example")[0], 400)
        token = self.invite()
        own = {"origin": f"https://{NAME}", **FORM}
        status, page, headers = self.ask("POST", "/join", f"invitation={token}&name=Desk", **own)
        self.assertEqual(status, 200, page)
        self.assertNotIn("certificate", page)  # the proxy's is its owner's matter
        cookie = headers["set-cookie"].partition(";")[0]
        self.assertEqual(self.ask("GET", "/api/rigs", cookie=cookie)[:2], (200, "[]"))
        self.assertEqual(self.ask("GET", "/api/share", cookie=cookie)[0], 403)  # not the owner
        self.assertEqual(self.ask("POST", "/join", f"invitation={token}&name=Two", **own)[0], 401)
        body = json.dumps({"name": "", "kind": "conventional", "mass": "lb", "terms": "europe"})
        own = {"content_type": "application/json", "cookie": cookie}
        self.assertEqual(self.ask("POST", "/api/rigs", body, **own)[0], 403)  # without an origin
        made = self.ask("POST", "/api/rigs", body, origin=f"https://{NAME}", **own)
        self.assertEqual(made[0], 201, made[1])
        looks = self.invite("--viewing")
        _, _, headers = self.ask(
            "POST", "/join", f"invitation={looks}&name=Guest", origin=f"https://{NAME}", **FORM
        )
        own["cookie"] = headers["set-cookie"].partition(";")[0]
        refused = self.ask("POST", "/api/rigs", body, origin=f"https://{NAME}", **own)
        self.assertIn("may look", refused[1])
        lines = self.stop()
        for words in ("started:", "paired: Desk", "refused: host.foreign", "stopped"):
            self.assertIn(words, lines)
        with contextlib.redirect_stderr(io.StringIO()) as said:  # nobody serves it any more
            self.assertEqual(main(["invite", "--data", str(self.folder)]), 2)
        self.assertIn("No Noxel shares", said.getvalue())

    def test_a_port_that_is_taken_names_its_holder(self) -> None:
        self.ask("GET", "/api/health")  # it is up
        other = ["serve", "--data", str(self.folder / "other"), "--port", str(self.port)]
        with contextlib.redirect_stderr(io.StringIO()) as said:
            self.assertEqual(main(other), 2)
        self.assertIn(f"Port {self.port} is taken by", said.getvalue())


class AtHome(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def test_own_names_are_certified_where_the_authority_may(self) -> None:
        names = ("nas.local", "rig.home.example")
        authority = Authority(self.folder / "share", names)
        chain = authority.certify(Addresses(names, ("192.168.1.4",))).read_bytes()
        named = x509.load_pem_x509_certificate(chain).extensions.get_extension_for_class(
            x509.SubjectAlternativeName
        )
        self.assertEqual(named.value.get_values_for_type(x509.DNSName), list(names))
        Authority(self.folder / "old")
        Authority(self.folder / "old", ("other.local",))
        with self.assertRaisesRegex(StorageFault, "not made for rig.home.example"):
            Authority(self.folder / "old", names)

    def test_an_invitation_of_the_command_line_is_used_once_and_ends(self) -> None:
        server, line = Invitations(folder=self.folder), Invitations(folder=self.folder)
        token = line.write(viewing=True)
        kept = [path.read_text() + path.name for path in (self.folder / "invited").iterdir()]
        self.assertFalse(any(token in text for text in kept))
        found = server.use(token)
        self.assertTrue(found and found.viewing)
        self.assertIsNone(server.use(token))
        late = line.write(viewing=False)
        for path in (self.folder / "invited").iterdir():
            os.utime(path, (time.time() - 601,) * 2)
        self.assertIsNone(server.use(late))
        self.assertIsNone(server.look("../devices.json"))
        ended = line.write(viewing=False)
        server.forget()  # the door was closed
        self.assertIsNone(server.use(ended))

    def test_dated_copies_and_only_the_newest_stay(self) -> None:
        database = Database(self.folder / "noxel.db")
        self.addCleanup(database.close)
        days = [datetime.datetime(2026, 11, day, 3, tzinfo=datetime.UTC) for day in range(1, 6)]
        copies = self.folder / "copies"
        (self.folder / "copies").mkdir()
        (copies / "noxel-mine.db").write_text("not a copy of Noxel's")
        for now in days:
            with mock.patch("noxel.store.backup.datetime") as clock:
                clock.datetime.now.return_value = now
                backup_kept(self.folder / "noxel.db", copies, 3)
        names = sorted(path.name[:16] for path in copies.iterdir())
        kept = [f"noxel-2026-11-0{day}" for day in (3, 4, 5)]
        self.assertEqual(names, [*kept, "noxel-mine.db"])

    def test_the_unit_says_where_and_how(self) -> None:
        text = unit(Path("/srv/noxel"), ["--share", "--name", NAME])
        self.assertIn(f"-m noxel serve --data /srv/noxel --share --name {NAME}\n", text)
        self.assertIn("ReadWritePaths=/srv/noxel\n", text)
        with (
            mock.patch.dict(os.environ, {"XDG_CONFIG_HOME": str(self.folder)}),
            contextlib.redirect_stdout(io.StringIO()),
            contextlib.redirect_stderr(io.StringIO()),
        ):
            call = ["service", "--data", str(self.folder / "data"), "install", "--", "--share"]
            self.assertEqual(main(call), 0)
            self.assertEqual(main(call), 2)  # nothing is overwritten
        text = (self.folder / "systemd/user/noxel.service").read_text()
        self.assertIn(f"serve --data {self.folder / 'data'} --share\n", text)
