"""Every attack at length; what they found goes into docs/testing.md with the date."""

from __future__ import annotations

import tempfile
from datetime import UTC, datetime
from pathlib import Path

from tests.attack.attacks import an_hour_of_use, clients, documents, kills, tabs
from tests.attack.fields import fields
from tests.attack.workspaces import archives, full_disk, restores_under_fire
from tests.browser.conftest import free_port, running_server

DOCUMENT = Path(__file__).parents[2] / "docs" / "testing.md"


def main() -> None:
    """Attack, print and write down."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        for inner in ("archives", "fire", "full", "hour"):
            (folder / inner).mkdir()
        found = [kills(folder, 60), tabs(folder, 400)]
        print("\n".join(found), flush=True)
        with running_server(folder / "demo") as address:
            found.append(clients(address, 20, 60.0))
        print(found[-1], flush=True)
        for attack in (
            lambda: documents(folder, 20_000),
            lambda: fields(folder, 0.05),
            lambda: archives(folder / "archives", 2000),
            lambda: restores_under_fire(folder / "fire", 30),
            lambda: full_disk(folder / "full", free_port()),
            lambda: an_hour_of_use(folder / "hour", 3600.0),
        ):
            found.append(attack())
            print(found[-1], flush=True)
    head = DOCUMENT.read_text(encoding="utf-8").split("<!-- attacked -->")[0]
    day = datetime.now(UTC).date().isoformat()
    rows = "\n".join(f"- {sentence}." for sentence in found)
    DOCUMENT.write_text(f"{head}<!-- attacked -->\n\nOn {day}:\n\n{rows}\n", encoding="utf-8")


if __name__ == "__main__":
    main()
