"""What was spent on weighing, from the fees as they were typed."""

import re
from collections import defaultdict
from collections.abc import Iterable
from decimal import Decimal

_AMOUNT = re.compile(r"\d+(?:[.,]\d{1,2})?(?!\d)")


def spent(fees: Iterable[str]) -> list[str]:
    """Add fees up, for each currency by itself.

    ``fees``: as typed: ``14.50``, ``$3``, ``12,00 EUR``. What holds no amount is left out.

    Returns a sum for each way of writing a currency, such as ``"$17.50 for 2 passes"``; the largest
    count first.
    """
    sums: dict[tuple[str, str], list[Decimal]] = defaultdict(list)
    for fee in fees:
        amount = _AMOUNT.search(fee)
        if amount:
            around = " ".join(fee[: amount.start()].split()), " ".join(fee[amount.end() :].split())
            sums[around].append(Decimal(amount[0].replace(",", ".")))
    ordered = sorted(sums.items(), key=lambda sums_of: -len(sums_of[1]))
    return [
        f"{before}{sum(fees):.2f}{f' {after}' if after else ''} for {len(fees)} "
        f"{'pass' if len(fees) == 1 else 'passes'}"
        for (before, after), fees in ordered
    ]
