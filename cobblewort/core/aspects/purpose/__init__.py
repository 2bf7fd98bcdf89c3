"""Needs: what a purpose asks of a kit, and whether the kit gives it."""
