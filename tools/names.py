"""Counts names that do not say what they hold; above the limit it fails."""

import ast
import sys
from collections import Counter
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).parent.parent
# fmt: off
VAGUE = {
    "at", "done", "each", "found", "given", "got", "here", "it", "made", "one", "put", "said",
    "seen", "taken", "that", "there", "thing", "things", "this", "to", "told", "what",
}
# fmt: on
MOST = 0.025
"""Of all names that are bound in the product, the tools and the tests."""


def bound(tree: ast.AST) -> Iterator[str]:
    """Every name that something is bound to."""
    for node in ast.walk(tree):
        if isinstance(node, ast.Name) and isinstance(node.ctx, ast.Store):
            yield node.id
        elif isinstance(node, ast.arg):
            yield node.arg
        elif isinstance(node, ast.ExceptHandler) and node.name:
            yield node.name


def main() -> int:
    """The share of vague names, with the files that have most of them; 1 above the limit."""
    names, vague = 0, Counter[str]()
    for folder in ("src", "tools", "tests"):
        for path in sorted((ROOT / folder).rglob("*.py")):
            for name in bound(ast.parse(path.read_text(encoding="utf-8"))):
                names += 1
                vague[str(path.relative_to(ROOT))] += name.strip("_") in VAGUE
    share = vague.total() / names
    print(f"{vague.total()} of {names} names are vague: {share:.1%} (at most {MOST:.1%})")
    if share > MOST:
        print(*(f"  {count} in {path}" for path, count in vague.most_common(10)), sep="\n")
    return share > MOST


if __name__ == "__main__":
    sys.exit(main())
