"""The server as it is started: hundreds of silent connections, and requests a letter at a time, do
not stop the page.
"""

import http.client
import socket
import subprocess
import sys
import tempfile
import unittest
from contextlib import closing

from noxel.server import MOST


class Served(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        call = [sys.executable, "-m", "noxel", "serve", "--data", folder.name, "--port", "0"]
        self.server = subprocess.Popen(
            call, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True
        )
        self.addCleanup(self.end)
        line = self.server.stdout.readline() if self.server.stdout else ""
        self.port = int(line.split("127.0.0.1:")[1].split()[0])

    def end(self) -> None:
        self.server.terminate()
        self.server.wait(20)
        if self.server.stdout:
            self.server.stdout.close()

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
