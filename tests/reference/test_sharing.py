"""Max-min fair shares against a general linear program, on random links and flows.

Bertsekas and Gallager, Data Networks, 6.5.2: the max-min fair rates are those whose sorted list is
the largest in dictionary order. The reference finds them by linear programs (SciPy, HiGHS): raise
the least rate of all that are not fixed yet, fix those that cannot rise further, and go on.
"""

from __future__ import annotations

from itertools import product

import numpy as np
import pytest
from scipy.optimize import linprog

from cobblewort.core.aspects.data.fair_share import alone_mb_s, fair_rates_mb_s
from cobblewort.core.figures.one_or_many import nominal

Loads = list[dict[str, float]]


def by_linear_programs(loads: Loads, most: list[float | None]) -> list[float]:
    """The lexicographic optimum, one level after the other."""
    links = sorted({link for load in loads for link in load})
    shares = np.array([[load.get(link, 0.0) for load in loads] for link in links])
    count = len(loads)
    fixed: dict[int, float] = {}

    def best(objective: list[float], least: float | None) -> tuple[float, np.ndarray]:
        rows, right = [[*row, 0.0] for row in shares], [1.0] * len(links)
        if least is None:  # raise the common level, the last variable
            for n in range(count):
                if n not in fixed:
                    rows.append([-1.0 if m == n else 0.0 for m in range(count)] + [1.0])
                    right.append(0.0)
        bounds = [
            (fixed[n], fixed[n]) if n in fixed else (least or 0.0, most[n]) for n in range(count)
        ]
        found = linprog(
            [-c for c in objective], A_ub=rows, b_ub=right, bounds=[*bounds, (0.0, None)]
        )
        assert found.status == 0, found.message
        return -found.fun, found.x

    while len(fixed) < count:
        level, _ = best([0.0] * count + [1.0], None)
        stuck = []
        for n in range(count):
            if n not in fixed:
                reach, _ = best([float(m == n) for m in range(count)] + [0.0], level * (1 - 1e-9))
                if reach < level * (1 + 1e-6):
                    stuck.append(n)
        assert stuck
        fixed |= dict.fromkeys(stuck, level)
    return [fixed[n] for n in range(count)]


def random_case(seed: int) -> tuple[Loads, list[float | None]]:
    """A tree of buses: flows from leaf to leaf, some in both directions, some with a demand."""
    rng = np.random.default_rng(seed)
    links = [f"link-{n}" for n in range(rng.integers(2, 7))]
    rates = {link: float(rng.uniform(5, 500)) for link in links}
    loads: Loads = []
    most: list[float | None] = []
    for _ in range(rng.integers(2, 6)):
        way = rng.choice(links, size=rng.integers(1, len(links) + 1), replace=False)
        times = {str(link): float(rng.choice([0.5, 1, 1, 2])) for link in way}
        loads.append({link: n / rates[link] for link, n in times.items()})
        most.append(float(rng.uniform(1, 100)) if rng.random() < 0.4 else None)
    return loads, most


@pytest.mark.parametrize("seed", range(60))
def test_shares_are_those_of_a_linear_program(seed: int) -> None:
    """To a millionth, with and without demands."""
    loads, most = random_case(seed)
    ours = [nominal(rate) for rate in fair_rates_mb_s(loads, most)]
    assert ours == pytest.approx(by_linear_programs(loads, most), rel=1e-6)


@pytest.mark.parametrize("seed", range(20))
def test_many_values_at_once_are_those_of_each(seed: int) -> None:
    """The same formulas serve one number and an array."""
    cases = [random_case(seed)[0]] + [
        [{link: share * factor for link, share in load.items()} for load in random_case(seed)[0]]
        for factor in (0.7, 1.6)
    ]
    most = random_case(seed)[1]
    stacked = [
        {link: np.array([case[n][link] for case in cases]) for link in cases[0][n]}
        for n in range(len(cases[0]))
    ]
    together = fair_rates_mb_s(stacked, most)
    for column, case in enumerate(cases):
        alone = [nominal(rate) for rate in fair_rates_mb_s(case, most)]
        columns = [np.broadcast_to(rate, (len(cases),))[column] for rate in together]
        assert columns == pytest.approx(alone)


@pytest.mark.parametrize("seed", range(60))
def test_a_faster_link_never_makes_the_sorted_rates_smaller(seed: int) -> None:
    """In dictionary order, lowest first; a single flow among several may well get less."""
    loads, most = random_case(seed)
    before = sorted(nominal(rate) for rate in fair_rates_mb_s(loads, most))
    for link in {name for load in loads for name in load}:
        faster = [
            {name: share / (1.7 if name == link else 1.0) for name, share in load.items()}
            for load in loads
        ]
        after = sorted(nominal(rate) for rate in fair_rates_mb_s(faster, most))
        for old, new in zip(before, after, strict=True):
            if new > old * (1 + 1e-9):
                break
            assert new >= old * (1 - 1e-9)


@pytest.mark.parametrize("seed", range(60))
def test_another_flow_never_raises_the_lowest_rate(seed: int) -> None:
    """Of those that were there before and wanted all they could get."""
    loads, _ = random_case(seed)
    fewer, all_of_them = loads[:-1], loads
    before = min(nominal(r) for r in fair_rates_mb_s(fewer, [None] * len(fewer)))
    after = min(nominal(r) for r in fair_rates_mb_s(all_of_them, [None] * len(all_of_them)))
    assert after <= before * (1 + 1e-9)


def test_a_single_flow_gets_its_narrowest_link() -> None:
    """And is never slowed by a faster one."""
    rates = (10.0, 40.0, 25.0)
    assert alone_mb_s({f"{n}": 1 / rate for n, rate in enumerate(rates)}) == pytest.approx(10)
    for n, factor in product(range(3), (1.0, 2.0, 8.0)):
        faster = {f"{k}": 1 / (r * (factor if k == n else 1)) for k, r in enumerate(rates)}
        assert nominal(alone_mb_s(faster)) >= 10 * (1 - 1e-12)
