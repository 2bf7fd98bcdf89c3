"""The page's types are made from the OpenAPI document; a stale copy fails here."""

import subprocess
from pathlib import Path

from cobblewort.api.openapi import openapi_text

ROOT = Path(__file__).parents[2]


def test_the_types_of_the_page_are_up_to_date(tmp_path: Path) -> None:
    """`make types` writes them."""
    document, types = tmp_path / "openapi.json", tmp_path / "schema.ts"
    document.write_text(openapi_text(), encoding="utf-8")
    tool = ROOT / "web" / "node_modules" / ".bin" / "openapi-typescript"
    subprocess.run(
        [tool, document, "-o", types, "--default-non-nullable=false"],
        check=True,
        capture_output=True,
        cwd=ROOT / "web",
    )
    kept = (ROOT / "web" / "src" / "api" / "schema.ts").read_text(encoding="utf-8")
    assert types.read_text(encoding="utf-8") == kept, "run `make types`"
