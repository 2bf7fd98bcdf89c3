"""The words in which an aspect judges a kit; no aspect is named here."""
