"""For all tests: programs that they start, some forty of them, find their modules compiled."""

import os
import sys
from pathlib import Path

COMPILED = str(Path(__file__).parents[1] / "build" / "compiled")

# As an installed program does; beside the sources a machine may forbid it.
sys.dont_write_bytecode, sys.pycache_prefix = False, COMPILED
os.environ["PYTHONDONTWRITEBYTECODE"], os.environ["PYTHONPYCACHEPREFIX"] = "", COMPILED
