"""The HTTP interface: thin routers over store and core; no sums."""

import sys

# FastAPI asks of every type whether it is a model of Pydantic 1, and loads a second Pydantic to ask
# with: a twentieth of the start. There are none here; None says that it is not to be found.
sys.modules.setdefault("pydantic.v1", None)  # type: ignore[arg-type]
