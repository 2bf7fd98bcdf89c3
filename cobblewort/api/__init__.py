"""The HTTP interface: thin routers over store and core; no sums."""
