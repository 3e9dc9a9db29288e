"""This machine's own certificate authority: made at first use, and good for nothing but this
machine's own networks.

A phone that installs it would trust whatever it signs. So its certificate is limited, by name
constraints, to ``.local`` names and private addresses: whoever stole its key could still not pose
as any site of the world outside.
"""

import datetime
import ipaddress
import ssl
import stat
from collections.abc import Sequence
from contextlib import suppress
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

from noxel.errors import StorageFault
from noxel.share.addresses import Addresses
from noxel.share.files import put_in_place

LASTS = datetime.timedelta(days=3650)
"""How long the authority is valid."""
SERVES = datetime.timedelta(days=90)
"""How long a certificate of the server is valid."""
RENEW = datetime.timedelta(days=30)
"""A certificate of the server with less left is made anew."""
EARLIER = datetime.timedelta(days=2)
"""So much before now it is valid already, for phones whose clock is late."""
_PERMITTED = (
    "10.0.0.0/8",
    "172.16.0.0/12",
    "192.168.0.0/16",
    "100.64.0.0/10",
    "169.254.0.0/16",
    "127.0.0.0/8",
)


class Authority:
    """The authority in a folder, and the server's certificate for what this machine is called now.

    ``folder``: where keys and certificates lie; made, and closed to others, if need be. ``names``:
    names of the owner's own, beside ``.local`` ones.

    Raises StorageFault if the folder cannot be written, or the authority there was made for other
    names.
    """

    def __init__(self, folder: Path, names: Sequence[str] = ()) -> None:
        self.folder = folder
        self._authority, self._chain = folder / "authority.pem", folder / "server.pem"
        try:
            folder.mkdir(mode=0o700, parents=True, exist_ok=True)
            own = [name for name in names if not name.endswith(".local")]
            if not self._authority.exists():
                self._found(own)
            self._certificate, self._key = _read(self._authority)
        except (OSError, ValueError) as exc:
            raise StorageFault(
                "share",
                f"The authority in {folder} cannot be made or read: {exc}. "
                "Check the folder, or move it aside to start over: phones must then be invited "
                "again.",
            ) from exc
        if missing := [name for name in own if name not in self._permitted()]:
            raise StorageFault(
                "share",
                f"The authority in {folder} was not made for {missing[0]}. Use a name that ends in "
                ".local, or move the folder aside to start over: phones must then be invited "
                "again.",
            )

    @property
    def public(self) -> bytes:
        """The authority's certificate as a phone installs it (DER)."""
        return self._certificate.public_bytes(serialization.Encoding.DER)

    @property
    def fingerprint(self) -> str:
        """SHA-256 of the authority's certificate, in pairs, to be compared by eye."""
        return self._certificate.fingerprint(hashes.SHA256()).hex(":").upper()

    def _permitted(self) -> set[str]:
        """The names that the authority may certify."""
        constraints = self._certificate.extensions.get_extension_for_class(x509.NameConstraints)
        names = constraints.value.permitted_subtrees or ()
        return {name.value for name in names if isinstance(name, x509.DNSName)}

    def _found(self, own: Sequence[str]) -> None:
        key = ec.generate_private_key(ec.SECP256R1())
        now = datetime.datetime.now(datetime.UTC)
        name = x509.Name(
            [x509.NameAttribute(NameOID.COMMON_NAME, f"Noxel on this network ({now:%Y-%m-%d})")]
        )
        permitted = [x509.DNSName(name) for name in ("local", "localhost", *own)]
        networks = [x509.IPAddress(ipaddress.ip_network(network)) for network in _PERMITTED]
        certificate = (
            x509.CertificateBuilder()
            .subject_name(name)
            .issuer_name(name)
            .public_key(key.public_key())
            .serial_number(x509.random_serial_number())
            .not_valid_before(now - EARLIER)
            .not_valid_after(now + LASTS)
            .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
            .add_extension(_usage(signs=True), critical=True)
            .add_extension(x509.NameConstraints([*permitted, *networks], None), critical=True)
            .add_extension(
                x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False
            )
            .sign(key, hashes.SHA256())
        )
        _write(self._authority, certificate, key)

    def certify(self, addresses: Addresses) -> Path:
        """The file with the server's certificate for these names; made anew where it would not do,
        or not for long.

        Raises StorageFault if it cannot be written.
        """
        try:
            if not self._serves(addresses):
                self._issue(addresses)
        except OSError as exc:
            raise StorageFault(
                "share", f"The certificate in {self.folder} cannot be written: {exc}"
            ) from exc
        return self._chain

    def _serves(self, addresses: Addresses) -> bool:
        with suppress(OSError, ValueError, x509.ExtensionNotFound):
            certificate, _ = _read(self._chain)
            named = certificate.extensions.get_extension_for_class(
                x509.SubjectAlternativeName
            ).value
            names = {str(name.value) for name in named}
            now = datetime.datetime.now(datetime.UTC)
            lasts = certificate.not_valid_before_utc < now < certificate.not_valid_after_utc - RENEW
            return (
                lasts
                and certificate.issuer == self._certificate.subject
                and addresses.hosts <= names
            )
        return False

    def _issue(self, addresses: Addresses) -> None:
        key = ec.generate_private_key(ec.SECP256R1())
        now = datetime.datetime.now(datetime.UTC)
        numbers = [x509.IPAddress(ipaddress.ip_address(number)) for number in addresses.numbers]
        certificate = (
            x509.CertificateBuilder()
            .subject_name(x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Noxel")]))
            .issuer_name(self._certificate.subject)
            .public_key(key.public_key())
            .serial_number(x509.random_serial_number())
            .not_valid_before(now - EARLIER)
            .not_valid_after(now + SERVES)
            .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
            .add_extension(_usage(signs=False), critical=True)
            .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
            .add_extension(
                x509.SubjectAlternativeName(
                    [*(x509.DNSName(name) for name in addresses.names), *numbers]
                ),
                critical=False,
            )
            .add_extension(
                x509.AuthorityKeyIdentifier.from_issuer_public_key(self._key.public_key()),
                critical=False,
            )
            .sign(self._key, hashes.SHA256())
        )
        _write(self._chain, certificate, key)

    def context(self, addresses: Addresses) -> ssl.SSLContext:
        """What the server speaks TLS with: version 1.2 or newer."""
        context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
        context.minimum_version = ssl.TLSVersion.TLSv1_2
        context.load_cert_chain(self.certify(addresses))
        return context


def _usage(*, signs: bool) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=not signs,
        key_cert_sign=signs,
        crl_sign=signs,
        content_commitment=False,
        key_encipherment=False,
        data_encipherment=False,
        key_agreement=False,
        encipher_only=False,
        decipher_only=False,
    )


def _write(path: Path, certificate: x509.Certificate, key: ec.EllipticCurvePrivateKey) -> None:
    """Key and certificate in one file, which is there whole or not at all, and which nobody else
    reads.
    """
    plain = key.private_bytes(
        serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
    )
    put_in_place(path, plain + certificate.public_bytes(serialization.Encoding.PEM))


def _read(path: Path) -> tuple[x509.Certificate, ec.EllipticCurvePrivateKey]:
    data = path.read_bytes()
    if path.stat().st_mode & (stat.S_IRWXG | stat.S_IRWXO):
        path.chmod(0o600)
    key = serialization.load_pem_private_key(data, None)
    if not isinstance(key, ec.EllipticCurvePrivateKey):
        raise ValueError(f"{path.name} holds a key of another kind")
    return x509.load_pem_x509_certificate(data), key
