"""Sizes as labels and as computers count them. IEC 80000-13."""

TB_B = 10**12
TIB_B = 2**40
GB_B = 10**9
GIB_B = 2**30


def tib(size_gb: float) -> float:
    """A size in 10^9 bytes as a computer shows it. [2^40 B]"""
    return size_gb * GB_B / TIB_B


def gib(size_gb: float) -> float:
    """A size in 10^9 bytes as a computer shows it. [2^30 B]"""
    return size_gb * GB_B / GIB_B
