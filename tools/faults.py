"""Small faults for ``make mutants``: a comparison, sign, factor, number or word of a source file
changed, one at a time.
"""

import ast
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).parent.parent

_COMPARED: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.LtE,
    ast.LtE: ast.Lt,
    ast.Gt: ast.GtE,
    ast.GtE: ast.Gt,
    ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot,
    ast.IsNot: ast.Is,
    ast.In: ast.NotIn,
    ast.NotIn: ast.In,
}
_RECKONED: dict[type[ast.operator], type[ast.operator]] = {
    ast.Add: ast.Sub,
    ast.Sub: ast.Add,
    ast.Mult: ast.Div,
    ast.Div: ast.Mult,
}
_NAMED = {"min": "max", "max": "min", "any": "all", "all": "any"}
_SAID = {
    "above": "below",
    "below": "above",
    "more": "less",
    "less": "more",
    "left": "over",
    "over": "left",
    "heavier": "lighter",
    "front": "rear",
}


@dataclass(frozen=True, slots=True)
class Mutant:
    """One fault: file, the lines of its statement, and which of the possible changes of that file,
    in their order.
    """

    path: str
    lines: range
    number: int
    says: str


class _Changes(ast.NodeTransformer):
    """Counts the places that can be changed; changes the one asked for."""

    def __init__(self, wanted: int | None = None) -> None:
        self.wanted, self.statement = wanted, range(0)
        self.found: list[tuple[range, str]] = []

    def visit(self, node: ast.AST) -> ast.AST:
        """A statement is known by its lines, without those of its body: of a condition in brackets
        the first is never run.
        """
        before = self.statement
        if isinstance(node, ast.stmt):
            body = getattr(node, "body", None)
            end = body[0].lineno if body else (node.end_lineno or node.lineno) + 1
            self.statement = range(node.lineno, max(end, node.lineno + 1))
        found: ast.AST = super().visit(node)
        self.statement = before
        return found

    def here(self, says: str) -> bool:
        """Whether this place is the one to be changed."""
        self.found.append((self.statement, says))
        return self.wanted == len(self.found) - 1

    def visit_Expr(self, node: ast.Expr) -> ast.AST:
        return node if isinstance(node.value, ast.Constant) else self.generic_visit(node)

    def visit_Compare(self, node: ast.Compare) -> ast.AST:
        self.generic_visit(node)
        other = _COMPARED.get(type(node.ops[0]))
        if other and self.here(f"{type(node.ops[0]).__name__} → {other.__name__}"):
            node.ops[0] = other()
        return node

    def visit_BinOp(self, node: ast.BinOp) -> ast.AST:
        self.generic_visit(node)
        other = _RECKONED.get(type(node.op))
        texts = any(
            isinstance(entry, ast.JoinedStr | ast.List | ast.Tuple)
            for entry in (node.left, node.right)
        )
        if other and not texts and self.here(f"{type(node.op).__name__} → {other.__name__}"):
            node.op = other()
        return node

    def visit_BoolOp(self, node: ast.BoolOp) -> ast.AST:
        self.generic_visit(node)
        if self.here("and ↔ or"):
            node.op = ast.Or() if isinstance(node.op, ast.And) else ast.And()
        return node

    def visit_UnaryOp(self, node: ast.UnaryOp) -> ast.AST:
        self.generic_visit(node)
        if isinstance(node.op, ast.Not | ast.USub) and self.here(
            f"{type(node.op).__name__} dropped"
        ):
            return node.operand
        return node

    def visit_Call(self, node: ast.Call) -> ast.AST:
        self.generic_visit(node)
        if (
            isinstance(node.func, ast.Name)
            and node.func.id in _NAMED
            and self.here(f"{node.func.id} ↔ {_NAMED[node.func.id]}")
        ):
            node.func = ast.copy_location(ast.Name(_NAMED[node.func.id], ast.Load()), node.func)
        return node

    def visit_Constant(self, node: ast.Constant) -> ast.AST:
        if isinstance(node.value, bool) or node.value is None:
            return node
        if isinstance(node.value, int | float) and self.here(
            f"{node.value} → {node.value * 6 + 1}"
        ):
            return ast.copy_location(ast.Constant(node.value * 6 + 1), node)
        if isinstance(node.value, str):
            word = next((word for word in node.value.split() if word in _SAID), None)
            if word and " " in node.value.strip() and self.here(f"“{word}” → “{_SAID[word]}”"):
                return ast.copy_location(
                    ast.Constant(node.value.replace(word, _SAID[word], 1)), node
                )
        return node


def mutants_of(path: Path) -> Iterator[Mutant]:
    """Every fault that can be made in a file."""
    changes = _Changes()
    changes.visit(ast.parse(path.read_text(encoding="utf-8")))
    for number, (lines, says) in enumerate(changes.found):
        yield Mutant(str(path.relative_to(ROOT)), lines, number, says)


def mutated(mutant: Mutant) -> str:
    """The source with the fault in it."""
    return ast.unparse(
        ast.fix_missing_locations(
            _Changes(mutant.number).visit(
                ast.parse((ROOT / mutant.path).read_text(encoding="utf-8"))
            )
        )
    )
