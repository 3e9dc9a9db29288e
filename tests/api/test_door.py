"""Other devices: who is not paired gets nothing, who is paired comes in, and who looks changes
nothing.

The server is the real one, over TLS on a second address of this machine. Expected: the rules of the
issue, by hand.
"""

import datetime
import re
import socket
import ssl
import tempfile
import unittest
from contextlib import ExitStack
from pathlib import Path
from unittest import mock

import httpx2
from cryptography import x509
from tools.stage import STRANGER, serving, shared

from noxel.api import door
from noxel.api.app import create_app
from noxel.demo import open_demo
from noxel.share import Addresses, Authority, Invitations, entrance
from noxel.share import authority as authority_module

WORD = "not paired"


class Shared(unittest.TestCase):
    def setUp(self) -> None:
        self.stack = ExitStack()
        self.addCleanup(self.stack.close)
        self.stack.enter_context(mock.patch.object(door, "SLOW", 0))
        self.folder = Path(self.stack.enter_context(tempfile.TemporaryDirectory()))
        self.database = open_demo(self.folder / "demo.db", fresh=True)
        self.addCleanup(self.database.close)
        self.sharing = shared(self.folder / "share")
        self.here = self.stack.enter_context(serving(self.database, self.sharing))
        self.there = f"https://{STRANGER}:{self.sharing.port}"

    def client(self) -> httpx2.Client:
        """A browser on another device, that trusts the authority and nothing else."""
        trusted = ssl.create_default_context(cadata=self.sharing.authority.public)
        headers = {"origin": self.there, "content-type": "application/json"}
        client = httpx2.Client(
            verify=trusted, base_url=self.there, headers=headers, trust_env=False, timeout=30
        )
        self.addCleanup(client.close)
        return client

    def owner(self) -> httpx2.Client:
        client = httpx2.Client(
            base_url=self.here, headers={"origin": self.here}, trust_env=False, timeout=30
        )
        self.addCleanup(client.close)
        return client

    def invitation(self, *, viewing: bool = False) -> str:
        body = self.owner().post("/api/share/invitations", json={"viewing": viewing})
        self.assertEqual(body.status_code, 201, body.text)
        self.assertTrue(
            body.json()["address"].startswith(self.there + "/join?invitation="), body.json()
        )
        return str(body.json()["address"].partition("invitation=")[2])

    def pair(self, *, viewing: bool = False, name: str = "Ada's phone") -> httpx2.Client:
        client, token = self.client(), self.invitation(viewing=viewing)
        self.assertIn("Pair this device", client.get("/join", params={"invitation": token}).text)
        form = {"invitation": token, "name": name}
        paired = client.post(
            "/join", data=form, headers={"content-type": "application/x-www-form-urlencoded"}
        )
        self.assertEqual(paired.status_code, 200, paired.text)
        cookie = paired.headers["set-cookie"].lower()
        for word in ("__host-noxel=", "httponly", "secure", "samesite=strict", "path=/"):
            self.assertIn(word, cookie)
        return client


class Unpaired(Shared):
    def test_a_closed_door_has_no_entrance(self) -> None:
        """What the command line would invite to is gone as soon as sharing is turned off."""
        share = self.folder / "share"
        self.assertEqual(entrance(share), self.there)
        self.assertEqual(self.owner().put("/api/share", json={"on": False}).status_code, 200)
        self.assertIsNone(entrance(share))

    def test_no_answer_on_an_address_of_the_world_outside(self) -> None:
        """By the address that was connected to, whatever name the request asks for."""
        client = self.pair()
        self.assertEqual(client.get("/api/rigs").status_code, 200)
        with mock.patch("noxel.api.sharing.private", return_value=False):
            refused = client.get("/api/rigs")
        self.assertEqual((refused.status_code, refused.json()["code"]), (403, "share.public"))

    def test_no_route_answers_a_stranger(self) -> None:
        app = create_app(self.database, sharing=self.sharing)
        client, before = self.client(), self.database.commits
        rig = self.owner().get("/api/rigs").json()[0]["id"]
        asked = [
            (method.upper(), re.sub(r"{\w+}", rig, path))
            for path, ways in app.openapi()["paths"].items()
            for method in ways
        ]
        asked += [
            ("GET", each)
            for each in (
                "/",
                "/assets/x.js",
                "/api/openapi.json",
                "/authority.crt",
                "/join",
                f"/rigs/{rig}/log",
            )
        ]
        self.assertGreater(len(asked), 70)
        for headers in ({}, {"accept": "text/html"}, {"cookie": f"{door.COOKIE}=guessed"}):
            for method, path in asked:
                kind = {
                    "content-type": "application/octet-stream"
                    if "/photos/" in path and method == "PUT"
                    else "application/json"
                }
                answer = client.request(
                    method,
                    path,
                    headers={**headers, **kind},
                    content="{}" if method in ("POST", "PUT", "PATCH") else None,
                )
                self.assertEqual(answer.status_code, 401, (method, path, answer.text[:200]))
                self.assertIn(WORD, answer.text + ("" if method != "HEAD" else WORD))
                self.assertIn("content-security-policy", answer.headers)
                self.assertNotIn("set-cookie", answer.headers)
        self.assertEqual(self.database.commits, before)

    def test_plain_http_gets_a_redirect_and_another_name_nothing(self) -> None:
        with socket.create_connection((STRANGER, self.sharing.port), timeout=10) as plain:
            plain.sendall(b"GET /rigs/1/log HTTP/1.1\r\nHost: elsewhere.example\r\n\r\n")
            answer = plain.makefile("rb").read().decode()
        self.assertTrue(answer.startswith("HTTP/1.1 308 "), answer)
        self.assertIn(f"Location: {self.there}/rigs/1/log\r\n", answer)
        self.assertTrue(answer.endswith("\r\n\r\n"))
        named = self.client().get("/", headers={"host": "elsewhere.example"})
        self.assertEqual((named.status_code, named.json()["code"]), (400, "host.foreign"))

    def test_silent_strangers_keep_nobody_out(self) -> None:
        with ExitStack() as held:
            for _ in range(100):
                held.enter_context(
                    socket.create_connection((STRANGER, self.sharing.port), timeout=10)
                )
            self.assertEqual(self.client().get("/api/health").status_code, 401)
            self.assertEqual(self.owner().get("/api/health").status_code, 200)


class Paired(Shared):
    def test_an_invitation_lets_one_device_in_once(self) -> None:
        client = self.pair()
        rigs = client.get("/api/rigs").json()
        self.assertEqual(len(rigs), 4)
        self.assertEqual(
            client.get("/api/me").json(), {"here": False, "name": "Ada's phone", "viewing": False}
        )
        change = {"changes": [{"path": "name", "text": "By the phone"}], "what": "name"}
        self.assertEqual(
            client.patch(f"/api/rigs/{rigs[0]['id']}", json=change).json()["rig"]["name"],
            "By the phone",
        )
        foreign = client.patch(
            f"/api/rigs/{rigs[0]['id']}",
            json=change,
            headers={"origin": "https://elsewhere.example"},
        )
        self.assertEqual(foreign.status_code, 403)
        for method, path in (
            ("GET", "/api/share"),
            ("PUT", "/api/share"),
            ("POST", "/api/share/invitations"),
        ):
            self.assertEqual(
                client.request(method, path, content="{}").json()["code"], "share.here_only"
            )
        kept = (self.folder / "share" / "devices.json").read_text()
        self.assertNotIn(client.cookies[door.COOKIE], kept)
        self.assertEqual((self.folder / "share" / "devices.json").stat().st_mode & 0o777, 0o600)

    def test_a_used_a_late_and_a_wrong_invitation(self) -> None:
        self.pair()
        now = 0.0
        self.sharing.invitations = Invitations(lambda: now)
        used, late = self.invitation(), self.invitation()
        for token, at in (
            (used, 599.0),
            (used, 599.0),
            (late, 601.0),
            ("a" * 22, 601.0),
            ("", 601.0),
        ):
            now = at
            form = {"invitation": token, "name": "x"}
            answer = self.client().post(
                "/join", data=form, headers={"content-type": "application/x-www-form-urlencoded"}
            )
            if token == used and self.sharing.invitations.wrong == 0 and "is paired" in answer.text:
                continue  # the first use
            self.assertEqual(
                (answer.status_code, "no longer valid" in answer.text),
                (401, True),
                (token, answer.text),
            )
        self.assertEqual(self.owner().get("/api/share").json()["wrong"], 4)
        self.assertEqual(len(self.sharing.devices.all()), 2)

    def test_who_looks_changes_nothing(self) -> None:
        client = self.pair(viewing=True)
        rig = client.get("/api/rigs").json()[0]["id"]
        for path in ("", "/log", "/paper.pdf"):
            self.assertEqual(client.get(f"/api/rigs/{rig}{path}").status_code, 200, path)
        before = self.database.commits  # the log has kept its facts by now
        self.assertEqual(
            client.post(f"/api/rigs/{rig}/adjust", json={"steps": []}).status_code, 200
        )
        lesson = client.post(
            "/api/practice/lessons/trailer", json={"answer": "1", "learner": "anybody"}
        )
        self.assertEqual((lesson.status_code, lesson.json()["reply"]["right"]), (200, False))
        app = create_app(self.database, sharing=self.sharing)
        for path, ways in app.openapi()["paths"].items():
            for method in set(ways) - {"get"}:
                client.request(method.upper(), path.replace("{rig_id}", rig), content="{}")
        self.assertEqual(client.get("/api/backup").json()["code"], "share.viewing")
        refused = client.patch(f"/api/rigs/{rig}", json={"changes": [], "what": "x"})
        self.assertEqual((refused.status_code, refused.json()["code"]), (403, "share.viewing"))
        self.assertEqual(self.database.commits, before)

    def test_shut_out_at_once_also_while_it_listens_and_after_a_restart(self) -> None:
        client, other = self.pair(), self.pair(name="The other")
        device = next(
            entry.id for entry in self.sharing.devices.all() if entry.name == "Ada's phone"
        )
        owner = self.owner()
        with client.stream("GET", "/api/events") as events:
            self.assertTrue(owner.get("/api/share").json()["devices"][0]["name"])
            owner.delete(f"/api/share/devices/{device}").raise_for_status()
            self.assertNotIn("page", "".join(events.iter_lines()), "it ends")
        self.assertEqual(client.get("/api/rigs").status_code, 401)
        again = shared(self.folder / "share")
        self.assertEqual([entry.name for entry in again.devices.all()], ["The other"])
        again.stop()
        self.assertEqual(other.get("/api/rigs").status_code, 200)
        owner.put("/api/share", json={"on": False}).raise_for_status()
        with self.assertRaises(httpx2.HTTPError):
            self.client().get("/")


class TheAuthority(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.authority = Authority(self.folder)

    def accepted(self, addresses: Addresses, asked: str) -> bool:
        """Whether a client that trusts the authority accepts the server under a name: a handshake
        in memory.
        """
        client = ssl.create_default_context(cadata=self.authority.public)
        boxes = ssl.MemoryBIO(), ssl.MemoryBIO()
        ours = self.authority.context(addresses).wrap_bio(boxes[0], boxes[1], server_side=True)
        theirs = client.wrap_bio(boxes[1], boxes[0], server_hostname=asked)
        for _ in range(4):
            for side in (theirs, ours):
                try:
                    side.do_handshake()
                except ssl.SSLWantReadError:
                    continue
                except ssl.SSLCertVerificationError:
                    return False
        return True

    def test_it_vouches_for_this_network_and_for_nothing_else(self) -> None:
        self.assertTrue(self.accepted(Addresses(("cab.local",), ("192.168.1.7",)), "192.168.1.7"))
        self.assertTrue(
            self.accepted(Addresses(("cab.local",), ("10.0.0.2",)), "cab.local"),
            "a new address, a new certificate",
        )
        self.assertFalse(self.accepted(Addresses(("cab.local",), ()), "other.local"))
        for names, numbers, asked in (
            (("bank.example",), (), "bank.example"),
            ((), ("203.0.113.5",), "203.0.113.5"),
        ):
            self.assertFalse(self.accepted(Addresses(names, numbers), asked), asked)

    def test_the_server_certificate_is_renewed_and_the_authority_stays(self) -> None:
        addresses = Addresses(("cab.local",), ("192.168.1.7",))
        first = self.authority.certify(addresses).read_bytes()
        self.assertEqual(
            self.authority.certify(addresses).read_bytes(), first, "what would do is kept"
        )
        with mock.patch.object(authority_module, "SERVES", datetime.timedelta(days=20)):
            (self.folder / "server.pem").unlink()
            short = self.authority.certify(addresses).read_bytes()
        self.assertNotEqual(
            self.authority.certify(addresses).read_bytes(), short, "twenty days are too few"
        )
        again = Authority(self.folder)
        self.assertEqual(again.fingerprint, self.authority.fingerprint)
        data = (self.folder / "server.pem").read_bytes()
        certificate = x509.load_pem_x509_certificate(data)
        self.assertLess(
            certificate.not_valid_before_utc,
            datetime.datetime.now(datetime.UTC) - datetime.timedelta(hours=24),
        )

    def test_a_damaged_authority_is_said_not_replaced(self) -> None:
        (self.folder / "authority.pem").write_text("gone")
        with self.assertRaisesRegex(Exception, r"authority in .* cannot be made or read"):
            Authority(self.folder)
        self.assertEqual((self.folder / "authority.pem").read_text(), "gone")


if __name__ == "__main__":
    unittest.main()
