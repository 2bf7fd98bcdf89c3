"""One process owns a data file while it serves it, or replaces much of it."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from cobblewort.store.database import StoreError, out_of_reach_told


@contextmanager
def owned(data_file: Path) -> Iterator[None]:
    """Own a data file until the end; the system lets go of it when the process dies.

    Raises
    ------
    StoreError
        If another process owns it.
    """
    from filelock import FileLock, Timeout  # takes a tenth of a second that most commands save

    lock = FileLock(data_file.with_name(f"{data_file.name}.lock"), mode=0o600)
    with out_of_reach_told(data_file.parent):
        data_file.parent.mkdir(parents=True, exist_ok=True)
        try:
            lock.acquire(timeout=0)
        except Timeout as error:
            raise StoreError(
                f"Another Cobblewort uses {data_file.parent}. Stop it, or name another folder with "
                "--data."
            ) from error
    try:
        yield
    finally:
        lock.release()
