"""The command line: serve the page, and judge a plan file."""

from __future__ import annotations

import gc
import os
import shutil
import sys
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
_YOUNG = 10_000
"""So many new objects are made between two looks for rings: those of a few judgements."""


def _data_folder(data: Path | None) -> Path:
    if data is not None:
        return data
    from platformdirs import user_data_path

    return user_data_path("cobblewort")


@contextmanager
def made_to_stay() -> Iterator[None]:
    """What is loaded inside stays for good: the collector does not go through it, then or later.

    A judgement makes some thousand objects and hardly a ring of them: it need not look so often.
    """
    gc.disable()
    try:
        yield
    finally:
        gc.freeze()
        gc.set_threshold(_YOUNG)
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
    with made_to_stay():
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
    with made_to_stay():
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


@contextmanager
def _wrong_input_told() -> Iterator[None]:
    """A file that is wrong ends the command with every problem and its place."""
    from cobblewort.core.errors import InputError

    try:
        yield
    except InputError as error:
        for place, problem in error.problems:
            click.echo(_shown(f"{place}: {problem}" if place else problem), err=True)
        raise click.exceptions.Exit(2) from error
    except (click.exceptions.Exit, click.ClickException):
        raise
    except Exception as error:  # exit 1 only ever means that something stops the plan
        click.echo(f"The program failed on this file ({type(error).__name__}); it is its fault, "
                   "not the plan's. Please report it with the file.", err=True)  # fmt: skip
        raise click.exceptions.Exit(2) from error


@main.command()
@click.argument("plan_files", metavar="PLAN...", type=_FILE, nargs=-1, required=True)
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
    plan_files: tuple[Path, ...], parts: tuple[Path, ...], ambient: float | None, samples: str,
    as_json: bool,
) -> None:  # fmt: skip
    """Judge plan files. Exit 0: nothing stops one; 1: something does; 2: a file is wrong.

    Of several files each is told in a line, and a wrong one takes no other down.
    """
    from cobblewort.checking import Checking, shipped_with

    with _wrong_input_told():
        checking = Checking(shipped_with(parts), ambient, int(samples))
    if len(plan_files) == 1:
        with _wrong_input_told():
            width = shutil.get_terminal_size((100, 24)).columns
            text, stops = checking.whole(plan_files[0], as_json, width)
        click.echo(_shown(text))
        raise click.exceptions.Exit(1 if stops else 0)
    worst = 0
    for row in checking.summary(plan_files):
        click.echo(_shown(row.text), err=row.exit == 2)
        worst = max(worst, row.exit)
    raise click.exceptions.Exit(worst)


def _data_file(data: Path | None) -> Path:
    return _data_folder(data) / DATA_NAME


_DATA = click.option("--data", type=_FILE, help="Folder in which the plans are kept.")


def _write_out(output: Path | None, content: bytes) -> None:
    """Write a file whole or not at all; without a name, to the screen."""
    if output is None:
        sys.stdout.buffer.write(content)
        return
    unfinished = output.with_name(f"{output.name}.unfinished")
    unfinished.write_bytes(content)
    unfinished.replace(output)
    click.echo(f"Written: {_shown(str(output))}", err=True)


@main.command()
@click.argument("plans", metavar="[PLAN]...", nargs=-1)
@_DATA
@click.option("--history", is_flag=True, help="With every step of each plan.")
@click.option(
    "--parts", "parts_kind", type=click.Choice(["json", "csv"]),
    help="Your own parts as a pack instead of plans.",
)  # fmt: skip
@click.option("--sheet", is_flag=True, help="One plan as a sheet to print (PDF).")
@click.option("--paper", type=click.Choice(["a4", "letter"]), default="a4", show_default=True)
@click.option("--calendar", is_flag=True, help="What one kit wants of you, for a calendar (ics).")
@click.option("--output", "-o", type=_FILE, help="File to write; else the screen.")
def export(
    plans: tuple[str, ...], data: Path | None, history: bool, parts_kind: str | None, sheet: bool,
    paper: str, calendar: bool, output: Path | None,
) -> None:  # fmt: skip
    """Write plans, named by id or name, or all of them; or your parts; or a plan's sheet or
    calendar.
    """
    from cobblewort.import_export import Workshop

    with _wrong_input_told(), _unusable_file_told():
        workshop = Workshop(_data_file(data))
        if parts_kind is not None:
            content = workshop.parts(parts_kind).encode()
        elif sheet:
            content = workshop.sheet(plans, paper)
        elif calendar:
            content = workshop.calendar(plans)
        else:
            content = workshop.plans(plans, steps=history).encode()
        _write_out(output, content)


@main.command(name="import")
@click.argument("files", metavar="FILE...", type=_FILE, nargs=-1, required=True)
@_DATA
@click.option("--dry-run", is_flag=True, help="Only tell what would come in.")
@click.option("--with-parts", is_flag=True, help="Put parts that plans carry into the cupboard.")
def import_files(
    files: tuple[Path, ...], data: Path | None, dry_run: bool, with_parts: bool
) -> None:
    """Bring in plans (JSON) and part packs (JSON, CSV): every file whole, or none of it."""
    from cobblewort.import_export import Workshop

    with _wrong_input_told(), _unusable_file_told():
        workshop = Workshop(_data_file(data))
        for file in files:
            for told in workshop.import_all(file, dry_run=dry_run, with_parts=with_parts):
                click.echo(_shown(told))


@main.command()
@click.argument("archive_file", metavar="FILE", type=_FILE)
@_DATA
def backup(archive_file: Path, data: Path | None) -> None:
    """Write the whole workspace into one file; the server may be running."""
    from cobblewort.import_export import Workshop

    with _wrong_input_told(), _unusable_file_told():
        _write_out(archive_file, Workshop(_data_file(data)).archive())


@main.command()
@click.argument("archive_file", metavar="FILE", type=_FILE)
@_DATA
@click.option("--yes", is_flag=True, help="Do not ask.")
def restore(archive_file: Path, data: Path | None, yes: bool) -> None:
    """Put a back-up in the place of everything; what is there is kept beside it first."""
    from cobblewort.import_export import Workshop

    with _wrong_input_told(), _unusable_file_told():
        workshop = Workshop(_data_file(data))
        content = workshop.read_archive(archive_file)
        for told in workshop.what_would_be_replaced(content):
            click.echo(_shown(told))
        if not yes:
            click.confirm("Replace it?", abort=True)
        click.echo(_shown(workshop.restore(content)))


@main.command()
@click.argument("shell", type=click.Choice(["bash", "zsh", "fish"]))
def completion(shell: str) -> None:
    """Print what makes a shell complete these commands; put it into its start-up file."""
    from click.shell_completion import get_completion_class

    kind = get_completion_class(shell)
    if kind is not None:
        click.echo(kind(main, {}, "cobblewort", "_COBBLEWORT_COMPLETE").source())


if __name__ == "__main__":
    main()
