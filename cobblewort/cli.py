"""The command line: serve the page, and judge a plan file."""

from __future__ import annotations

import gc
import os
import shutil
import unicodedata
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import click

# One thread for linear algebra: its small products only lose time to more. Set before numpy loads.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

DATA_NAME = "cobblewort.sqlite3"
DEMO_NAME = "demo.sqlite3"
"""The demo has a file of its own: bringing it back touches no plan of yours."""


def _data_folder(data: Path | None) -> Path:
    if data is not None:
        return data
    from platformdirs import user_data_path

    return user_data_path("cobblewort")


@contextmanager
def _made_to_stay() -> Iterator[None]:
    """What is loaded inside stays for good: the collector does not go through it, then or later."""
    gc.disable()
    try:
        yield
    finally:
        gc.freeze()
        gc.enable()


def _shown(text: str) -> str:
    """What a terminal shows: text and line breaks, and nothing that steers it."""
    return "".join(c for c in text if c in "\n\t" or unicodedata.category(c) not in ("Cc", "Cs"))


@contextmanager
def _unusable_file_told() -> Iterator[None]:
    """A data file or folder that cannot be used ends the command with a sentence."""
    import sqlite3

    from cobblewort.store.database import StoreError, reason_of

    try:
        yield
    except (StoreError, OSError, sqlite3.Error) as error:
        told = reason_of(error) if isinstance(error, sqlite3.Error) else str(error)
        click.echo(told, err=True)
        raise click.exceptions.Exit(2) from error


def _run(data_file: Path, port: int) -> None:
    with _made_to_stay():
        from cobblewort.api.app import create_app
        from cobblewort.api.server import bound, server_for

        with _unusable_file_told():
            listening = bound(port)
            application = create_app(data_file)
    click.echo(f"Cobblewort is at http://127.0.0.1:{port}  (stop it with Ctrl+C)")
    server_for(application).run(sockets=[listening])


@click.group()
def main() -> None:
    """Plan a single-board-computer appliance before buying it."""


_PORT = click.option(
    "--port", type=click.IntRange(1, 65535), default=8000, show_default=True,
    help="Port on 127.0.0.1.",
)  # fmt: skip
_FILE = click.Path(path_type=Path)


@main.command()
@click.option("--data", type=_FILE, help="Folder to keep plans in.")
@_PORT
def serve(data: Path | None, port: int) -> None:
    """Serve the page on this machine, with your own plans."""
    _run(_data_folder(data) / DATA_NAME, port)


@main.command()
@click.option(
    "--data", type=_FILE, default=Path("var/demo"), show_default=True,
    help="Folder to keep the demo in.",
)  # fmt: skip
@_PORT
@click.option("--reset", is_flag=True, help="Bring the demo plans back and stop.")
def demo(data: Path, port: int, reset: bool) -> None:
    """Serve the page with demo plans; what you change in them is kept."""
    with _made_to_stay():
        from cobblewort.demo import fill_with_demo, put_aside

    file = data / DEMO_NAME
    with _unusable_file_told():
        if reset:
            if (data / DATA_NAME).exists():
                click.echo(f"{data} holds plans of your own ({DATA_NAME}); nothing was changed. "
                           "Name another folder with --data.", err=True)  # fmt: skip
                raise click.exceptions.Exit(2)
            kept = put_aside(file)
            if kept is not None:
                click.echo(f"What was there is kept as {kept}.")
        fill_with_demo(file)
    if reset:
        click.echo("The demo plans are as they came.")
        return
    _run(file, port)


@main.command()
@click.argument("plan_file", metavar="PLAN", type=_FILE)
@click.option(
    "--parts", type=_FILE, multiple=True, help="Part pack besides the shipped parts; repeatable."
)
@click.option(
    "--ambient", type=click.FloatRange(-60, 90), help="Hottest day instead of the plan's, °C."
)
@click.option(
    "--samples", type=click.Choice(["1", "64", "256", "1024"]), default="256", show_default=True,
    help="Values a figure; 1: nominal.",
)  # fmt: skip
@click.option("--json", "as_json", is_flag=True, help="Print the whole report as JSON.")
def check(
    plan_file: Path, parts: tuple[Path, ...], ambient: float | None, samples: str, as_json: bool
) -> None:
    """Judge a plan file. Exit 0: nothing stops it; 1: something does; 2: the file is wrong."""
    from pydantic_core import to_json

    from cobblewort.core.errors import InputError
    from cobblewort.core.plans.plan import plan_from
    from cobblewort.core.plans.what_if import what_if
    from cobblewort.core.verdict.evaluate import evaluate
    from cobblewort.formats.documents import pack_from, parse_document
    from cobblewort.formats.shipped import shipped_catalogue
    from cobblewort.formats.text import report_text

    try:
        catalogue = shipped_catalogue()
        for pack in parts:
            catalogue = catalogue.extended(pack_from(parse_document(pack)))
        plan = plan_from(parse_document(plan_file))
        report = evaluate(what_if(plan, ambient), catalogue, int(samples))
        width = shutil.get_terminal_size((100, 24)).columns
        text = to_json(report, indent=2).decode() if as_json else report_text(report, width)
    except InputError as error:
        for place, problem in error.problems:
            click.echo(_shown(f"{place}: {problem}" if place else problem), err=True)
        raise click.exceptions.Exit(2) from error
    except Exception as error:  # exit 1 only ever means that something stops the plan
        click.echo(f"The program failed on this file ({type(error).__name__}); it is its fault, "
                   "not the plan's. Please report it with the file.", err=True)  # fmt: skip
        raise click.exceptions.Exit(2) from error
    click.echo(_shown(text))
    raise click.exceptions.Exit(1 if report.severity == "stops" else 0)


if __name__ == "__main__":
    main()
