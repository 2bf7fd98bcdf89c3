"""Writes docs/sentences.md."""

from pathlib import Path

from tests.sentences.gather import page

Path("docs/sentences.md").write_text(page(), encoding="utf-8")
