"""Prints the OpenAPI document, from which the page's types are made."""

import json
import tempfile
from pathlib import Path

from cobblewort.api.app import create_app


def openapi_text() -> str:
    """The document as JSON; the data file that the application asks for is thrown away."""
    with tempfile.TemporaryDirectory() as folder:
        document = create_app(Path(folder) / "none.sqlite3").openapi()
    return json.dumps(document, indent=2, ensure_ascii=False) + "\n"


if __name__ == "__main__":
    print(openapi_text(), end="")
