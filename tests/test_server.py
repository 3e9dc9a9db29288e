"""The server as it is started: hundreds of silent connections, and requests a letter at a time, do
not stop the page.
"""

import http.client
import json
import socket
import subprocess
import sys
import tempfile
import unittest
from contextlib import closing
from pathlib import Path

from noxel.server import MOST
from noxel.store.database import Database
from noxel.store.rigs import Rigs


class Served(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = folder.name
        call = [sys.executable, "-m", "noxel", "serve", "--data", folder.name, "--port", "0"]
        self.server = subprocess.Popen(
            call, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True
        )
        self.addCleanup(self.end)
        line = self.server.stdout.readline() if self.server.stdout else ""
        self.port = int(line.split("127.0.0.1:")[1].split()[0])

    def end(self) -> None:
        if self.server.poll() is None:
            self.server.terminate()
        self.server.wait(20)
        if self.server.stdout and not self.server.stdout.closed:
            self.server.stdout.close()

    def test_a_stop_leaves_one_file_that_holds_everything(self) -> None:
        folder = Path(self.folder)
        with closing(http.client.HTTPConnection("127.0.0.1", self.port, timeout=30)) as asked:
            body = json.dumps({"name": "kept", "kind": "conventional", "mass": "lb"})
            origin = f"http://127.0.0.1:{self.port}"
            headers = {"Content-Type": "application/json", "Origin": origin}
            asked.request("POST", "/api/rigs", body, headers)
            self.assertEqual(asked.getresponse().status, 201)
        self.end()
        self.assertEqual(self.server.returncode, 0)
        self.assertFalse((folder / "noxel.db-wal").exists())
        database = Database(folder / "noxel.db")
        self.assertEqual([rig.name for rig in Rigs(database).summaries()], ["kept"])
        database.close()

    def health(self) -> int:
        with closing(http.client.HTTPConnection("127.0.0.1", self.port, timeout=30)) as asked:
            asked.request("GET", "/api/health")
            return asked.getresponse().status

    def test_silent_connections_make_room(self) -> None:
        held = []
        try:
            for number in range(MOST + 60):
                held.append(socket.create_connection(("127.0.0.1", self.port), timeout=30))
                if number % 3 == 0:
                    held[-1].sendall(b"GET /api/health HTTP/1.1\r\nHost: 127")  # and never the rest
            self.assertEqual(self.health(), 200)
            held[0].settimeout(30)
            self.assertEqual(self.ended(held[0]), b"", "the oldest one was closed")
        finally:
            for each in held:
                each.close()
        self.assertEqual(self.health(), 200)

    def ended(self, connection: socket.socket) -> bytes:
        try:
            return connection.recv(100)
        except ConnectionResetError:
            return b""

    def test_a_head_without_end_is_refused(self) -> None:
        with socket.create_connection(("127.0.0.1", self.port), timeout=30) as slow:
            try:
                slow.sendall(b"GET /" + b"a" * 200_000)
            except ConnectionError:
                return
            self.assertIn(b" 400 ", self.ended(slow) or b" 400 ")
        self.assertEqual(self.health(), 200)
