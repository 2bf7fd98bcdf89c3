"""Writes docs/first-kits.md: `make first-kits`."""

from tests.first_kits.table import DOCUMENT, table

DOCUMENT.write_text(table())
