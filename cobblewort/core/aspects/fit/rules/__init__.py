"""Rules of fit."""
