"""Every attack at length; what they found goes into docs/testing.md with the date."""

from __future__ import annotations

import tempfile
from datetime import UTC, datetime
from pathlib import Path

from tests.attack.attacks import clients, documents, kills, tabs
from tests.browser.conftest import running_server

DOCUMENT = Path(__file__).parents[2] / "docs" / "testing.md"


def main() -> None:
    """Attack, print and write down."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        found = [kills(folder, 60), tabs(folder, 400)]
        print("\n".join(found), flush=True)
        with running_server(folder / "demo") as address:
            found.append(clients(address, 20, 60.0))
        print(found[-1], flush=True)
        found.append(documents(folder, 20_000))
        print(found[-1])
    head = DOCUMENT.read_text(encoding="utf-8").split("<!-- attacked -->")[0]
    day = datetime.now(UTC).date().isoformat()
    rows = "\n".join(f"- {sentence}." for sentence in found)
    DOCUMENT.write_text(f"{head}<!-- attacked -->\n\nOn {day}:\n\n{rows}\n", encoding="utf-8")


if __name__ == "__main__":
    main()
