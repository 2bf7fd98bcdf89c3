"""`make scan`: judge every kit of one board, supply, case, cooler and drive; some 25 000."""

from __future__ import annotations

from collections import Counter
from multiprocessing import Pool

from cobblewort.core.plans.plan import Plan
from tests.scan.kits import faults, plans, severities


def _judged(plan: Plan) -> tuple[Plan, list[str], Counter[str]]:
    return plan, list(faults(plan)), severities(plan)


def main() -> None:
    """Print what nobody would believe, and how often each rule speaks."""
    told: Counter[str] = Counter()
    count = bad = 0
    with Pool() as pool:
        for plan, found, severity in pool.imap_unordered(_judged, plans(), chunksize=64):
            count += 1
            told += severity
            for fault in found:
                bad += 1
                print(" ".join(line.part for line in plan.lines), fault, sep=": ")
    print(f"{count} kits, {bad} of them told something that nobody would believe")
    for rule, times in sorted(told.items()):
        print(f"{rule:16} {times}")


if __name__ == "__main__":
    main()
