"""Published constants and tables, one module a standard, each number beside its source."""
