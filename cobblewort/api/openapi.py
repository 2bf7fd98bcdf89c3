"""Prints the OpenAPI document, from which the page's types are made."""

import json
import tempfile
from pathlib import Path
from typing import Any

from cobblewort.api.app import create_app


def openapi_document() -> dict[str, Any]:
    """The document; the data file that the application asks for is thrown away."""
    with tempfile.TemporaryDirectory() as folder:
        return create_app(Path(folder) / "none.sqlite3").openapi()


def openapi_text() -> str:
    """The document as JSON."""
    return json.dumps(openapi_document(), indent=2, ensure_ascii=False) + "\n"


if __name__ == "__main__":
    print(openapi_text(), end="")
