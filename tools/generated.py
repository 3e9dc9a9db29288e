"""Files generated from the code: the page's types, the rig file's JSON Schema, and the rooms'
picture.

``generated.py`` writes them; ``generated.py --check`` exits 1 when one of them is not what the
code says.
"""

import json
import subprocess
import sys
import tempfile
from pathlib import Path

from noxel.api.contract import contract
from noxel.core.rig import RigFile
from tools.rooms import picture

ROOT = Path(__file__).parent.parent
TYPES = ROOT / "web/generated/api.ts"
SCHEMA = ROOT / "docs/rig-file.schema.json"
ROOMS = ROOT / "docs/rooms.svg"


def types() -> str:
    """The page's types, from the OpenAPI document."""
    with tempfile.TemporaryDirectory() as folder:
        document, target = Path(folder) / "openapi.json", Path(folder) / "types.ts"
        document.write_text(contract(), encoding="utf-8")
        call = [
            "npx",
            "--no-install",
            "openapi-typescript",
            "--root-types",
            "--root-types-no-schema-prefix",
            "--default-non-nullable=false",
            str(document),
            "-o",
            str(target),
        ]
        subprocess.run(call, cwd=ROOT / "web", check=True, capture_output=True)
        return target.read_text(encoding="utf-8")


def schema() -> str:
    """The rig file's JSON Schema."""
    document = {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        **RigFile.model_json_schema(),
    }
    return json.dumps(document, indent=1, ensure_ascii=False) + "\n"


def main() -> int:
    """Write or check."""
    stale = []
    for path, text in ((TYPES, types()), (SCHEMA, schema()), (ROOMS, picture())):
        if "--check" in sys.argv:
            if not path.exists() or path.read_text(encoding="utf-8") != text:
                stale.append(str(path.relative_to(ROOT)))
        else:
            path.parent.mkdir(exist_ok=True)
            path.write_text(text, encoding="utf-8")
    if stale:
        print(f"Not what the code says: {', '.join(stale)}. Run “make types”.", file=sys.stderr)
    return 1 if stale else 0


if __name__ == "__main__":
    sys.exit(main())
