"""The command line: serve the page, and check plan files."""

from __future__ import annotations

import gc
import os
import shutil
import sys
import tempfile
import unicodedata
from collections.abc import Callable, Iterator
from contextlib import ExitStack, contextmanager, nullcontext
from pathlib import Path
from typing import TYPE_CHECKING

import click

if TYPE_CHECKING:
    from cobblewort.formats.display_units import DisplayUnits

# One thread for linear algebra: its small products only lose time to more. Set before numpy loads.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
# Nothing is plugged into Pydantic; to look for that takes a twentieth of a start.
os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "__all__")

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


def _run(data_file: Path, port: int, first: Callable[[Path], None] | None = None) -> None:
    with made_to_stay():
        from cobblewort.api.app import create_app
        from cobblewort.api.server import bound, server_for

    with _unusable_file_told():
        listening = bound(port)
    with _owning(data_file):
        with made_to_stay(), _unusable_file_told():
            if first is not None:
                first(data_file)
            application = create_app(data_file)
        click.echo(f"Cobblewort is at http://127.0.0.1:{port}  (stop it with Ctrl+C)")
        server_for(application).run(sockets=[listening])


@contextmanager
def _owning(data_file: Path) -> Iterator[None]:
    """Own a data file, or end the command with a sentence where another process does."""
    from cobblewort.store.owner import owned

    with ExitStack() as until_the_end:
        with _unusable_file_told():
            until_the_end.enter_context(owned(data_file))
        yield


@click.group()
def main() -> None:
    """Plan a single-board-computer appliance before buying it."""


_PORT = click.option(
    "--port",
    type=click.IntRange(1, 65535),
    default=8000,
    show_default=True,
    help="Port on 127.0.0.1.",
)
_FILE = click.Path(path_type=Path)


@main.command()
@click.option("--data", type=_FILE, help="Folder for your plans.")
@_PORT
def serve(data: Path | None, port: int) -> None:
    """Serve the page on this computer, with your own plans."""
    _run(_data_folder(data) / DATA_NAME, port)


@main.command()
@click.option(
    "--data",
    type=_FILE,
    default=Path("var/demo"),
    show_default=True,
    help="Folder for the demo.",
)
@_PORT
@click.option("--reset", is_flag=True, help="Restore the demo plans and exit.")
def demo(data: Path, port: int, reset: bool) -> None:
    """Serve the page with demo plans; your changes are kept."""
    with made_to_stay():
        from cobblewort.demo import fill_with_demo, put_aside

    file = data / DEMO_NAME
    if reset:
        if (data / DATA_NAME).exists():
            click.echo(
                f"{data} contains your own plans ({DATA_NAME}). Nothing was changed. "
                "Name another folder with --data.",
                err=True,
            )
            raise click.exceptions.Exit(2)
        with _owning(file), _unusable_file_told():
            kept = put_aside(file)
            if kept is not None:
                click.echo(f"The former file is kept as {kept}.")
            fill_with_demo(file)
        click.echo("The demo plans are restored.")
        return
    _run(file, port, fill_with_demo)


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
    except (click.exceptions.Exit, click.ClickException, click.exceptions.Abort):
        raise
    except Exception as error:  # exit 1 only ever means that something stops the plan
        click.echo(
            f"The program failed on this file ({type(error).__name__}). This is a fault of "
            "the program. Please report it with the file.",
            err=True,
        )
        raise click.exceptions.Exit(2) from error


_UNITS = click.option(
    "--units", help="C or F, mm or in, point or comma, such as F,in,comma; default: your settings."
)


def _units(names: str | None, data_file: Path) -> DisplayUnits:
    """The units of the settings, where there is a data file, with what was named instead."""
    from cobblewort.formats.display_units import SI_UNITS, units_from

    settings = SI_UNITS
    if data_file.is_file():
        from cobblewort.commands.import_export import units_of_settings

        settings = units_of_settings(data_file)
    chosen = [name.strip() for name in (names or "").replace(" ", ",").split(",")]
    return units_from((name for name in chosen if name), settings)


_PARTS = click.option(
    "--parts",
    type=_FILE,
    multiple=True,
    help="Part pack in addition to the shipped parts; repeatable.",
)


@main.command()
@click.argument("plan_files", metavar="PLAN...", type=_FILE, nargs=-1, required=True)
@_PARTS
@click.option(
    "--ambient", type=click.FloatRange(-60, 90), help="Highest ambient instead of the plan's, °C."
)
@click.option(
    "--samples",
    type=click.Choice(["1", "64", "256", "1024"]),
    default="256",
    show_default=True,
    help="Draws per value; 1: nominal values only.",
)
@_UNITS
@click.option("--json", "as_json", is_flag=True, help="Print the whole report as JSON.")
def check(
    plan_files: tuple[Path, ...],
    parts: tuple[Path, ...],
    ambient: float | None,
    samples: str,
    units: str | None,
    as_json: bool,
) -> None:
    """Check plan files. Exit 0: no problems; 1: a plan has problems; 2: a file is wrong.

    Several files are told in one line each; a wrong file does not stop the others.
    """
    with made_to_stay():
        from cobblewort.commands.checking import Checking, shipped_with

        with _wrong_input_told():
            catalogue = shipped_with(parts)
            checking = Checking(catalogue, ambient, int(samples), _units(units, _data_file(None)))
    if len(plan_files) == 1:
        with _wrong_input_told():
            width = shutil.get_terminal_size((100, 24)).columns
            text, problem = checking.whole(plan_files[0], as_json, width)
        click.echo(_shown(text))
        raise click.exceptions.Exit(1 if problem else 0)
    worst = 0
    for row in checking.summary(plan_files):
        click.echo(_shown(row.text), err=row.exit == 2)
        worst = max(worst, row.exit)
    raise click.exceptions.Exit(worst)


@main.command()
@click.argument("plan_file", metavar="PLAN", type=_FILE)
@_PARTS
@click.option(
    "--criteria",
    help="What the kits are compared by, separated by commas: price, watts, noise and margin "
    "unless you choose; also headroom, litres, years, rate, work and tight.",
)
@click.option("--own", multiple=True, help="Part that you already have; repeatable.")
@click.option("--owned-only", is_flag=True, help="Only use parts that you already have.")
@click.option("--without", multiple=True, help="Part or maker that is not used; repeatable.")
@click.option("--require", multiple=True, help="ROLE=PART: the only part for a role; repeatable.")
@click.option("--at-most", type=click.FloatRange(0, min_open=True), help="The most to spend.")
@click.option("--tight", is_flag=True, help="Include kits in which a margin is tight.")
@click.option("--no-case", is_flag=True, help="Kits without a case.")
@click.option("--first", is_flag=True, help="Stop at the first, lowest-priced kit.")
@click.option("--seconds", type=click.FloatRange(0, min_open=True), help="Stop after this time.")
@_UNITS
@click.option("--json", "as_json", is_flag=True, help="Print the kits with their plans as JSON.")
@click.option("--csv", "as_csv", is_flag=True, help="Print a row for each kit as CSV.")
def suggest(
    plan_file: Path,
    parts: tuple[Path, ...],
    criteria: str | None,
    own: tuple[str, ...],
    owned_only: bool,
    without: tuple[str, ...],
    require: tuple[str, ...],
    at_most: float | None,
    tight: bool,
    no_case: bool,
    first: bool,
    seconds: float | None,
    units: str | None,
    as_json: bool,
    as_csv: bool,
) -> None:
    """Suggest complete kits for the requirements of a plan: those that no other kit beats.

    Ctrl+C stops the search and prints what is known. Exit 0: a kit was found; 1: none was.
    """
    if as_json and as_csv:
        raise click.UsageError("Choose either --json or --csv.")
    with made_to_stay():
        from cobblewort.commands.suggesting import Form, suggested, wishes_of

        with _wrong_input_told():
            wishes = wishes_of(criteria, own, owned_only, without, require, at_most, tight, no_case)
            form: Form = "json" if as_json else "csv" if as_csv else "text"
            shown_units = _units(units, _data_file(None))
            text, any_found = suggested(plan_file, parts, wishes, first, seconds, form, shown_units)
    click.echo(_shown(text) if form == "text" else text)
    raise click.exceptions.Exit(0 if any_found else 1)


def _data_file(data: Path | None) -> Path:
    return _data_folder(data) / DATA_NAME


_DATA = click.option("--data", type=_FILE, help="Folder with your plans.")


def _write_out(output: Path | None, content: bytes, *, private: bool = False) -> None:
    """Write a file whole or not at all; without a name, to the screen. What is no plain file, such
    as a device, is not replaced, and a link is followed to its file.
    """
    if output is None:
        sys.stdout.buffer.write(content)
        return
    file = output.resolve()
    if file.exists() and not file.is_file():
        click.echo(f"{_shown(str(output))} is not a plain file. Name another one.", err=True)
        raise click.exceptions.Exit(2)
    handle, name = tempfile.mkstemp(prefix=f".{file.name}.", suffix=".unfinished", dir=file.parent)
    unfinished = Path(name)
    try:
        with os.fdopen(handle, "wb") as opened:
            opened.write(content)
        if not private:
            umask = os.umask(0)
            os.umask(umask)
            unfinished.chmod(0o666 & ~umask)
        unfinished.replace(file)
    except BaseException:
        unfinished.unlink(missing_ok=True)
        raise
    click.echo(f"Written: {_shown(str(output))}", err=True)


@main.command()
@click.argument("plans", metavar="[PLAN]...", nargs=-1)
@_DATA
@click.option("--history", is_flag=True, help="Include the history of each plan.")
@click.option(
    "--parts",
    "parts_kind",
    type=click.Choice(["json", "csv"]),
    help="Your custom parts as a pack instead of plans.",
)
@click.option("--sheet", is_flag=True, help="The plan sheet of one plan (PDF).")
@click.option("--paper", type=click.Choice(["a4", "letter"]), default="a4", show_default=True)
@_UNITS
@click.option("--calendar", is_flag=True, help="The maintenance of one plan as a calendar (ics).")
@click.option("--output", "-o", type=_FILE, help="File to write; default: the terminal.")
def export(
    plans: tuple[str, ...],
    data: Path | None,
    history: bool,
    parts_kind: str | None,
    sheet: bool,
    paper: str,
    units: str | None,
    calendar: bool,
    output: Path | None,
) -> None:
    """Export plans by id or name, or all of them; or your parts, a plan sheet or a calendar."""
    from cobblewort.commands.import_export import Workshop

    if sum((parts_kind is not None, sheet, calendar)) > 1:
        raise click.UsageError("Name one of --parts, --sheet and --calendar.")
    with _wrong_input_told(), _unusable_file_told():
        workshop = Workshop(_data_file(data), beside=DEMO_NAME)
        if parts_kind is not None:
            content = workshop.parts(parts_kind).encode()
        elif sheet:
            content = workshop.sheet(plans, paper, _units(units, _data_file(data)))
        elif calendar:
            content = workshop.calendar(plans)
        else:
            content = workshop.plans(plans, steps=history).encode()
        _write_out(output, content)


@main.command(name="import")
@click.argument("files", metavar="FILE...", type=_FILE, nargs=-1, required=True)
@_DATA
@click.option("--dry-run", is_flag=True, help="Only show what would be imported.")
@click.option("--with-parts", is_flag=True, help="Add the parts inside plans to your parts.")
def import_files(
    files: tuple[Path, ...], data: Path | None, dry_run: bool, with_parts: bool
) -> None:
    """Import plans (JSON) and part packs (JSON, CSV): each file completely or not at all."""
    from cobblewort.commands.import_export import Workshop

    data_file = _data_file(data)
    owning = nullcontext() if dry_run else _owning(data_file)
    with owning, _wrong_input_told(), _unusable_file_told():
        workshop = Workshop(data_file, make=not dry_run, beside=DEMO_NAME)
        for file in files:
            for told in workshop.import_all(file, dry_run=dry_run, with_parts=with_parts):
                click.echo(_shown(told))


@main.command()
@click.argument("archive_file", metavar="FILE", type=_FILE)
@_DATA
def backup(archive_file: Path, data: Path | None) -> None:
    """Back up the whole workspace to one file; the server may be running."""
    from cobblewort.commands.import_export import Workshop

    with _wrong_input_told(), _unusable_file_told():
        content = Workshop(_data_file(data), beside=DEMO_NAME).archive()
        _write_out(archive_file, content, private=True)


@main.command()
@click.argument("archive_file", metavar="FILE", type=_FILE)
@_DATA
@click.option("--yes", is_flag=True, help="Do not ask for confirmation.")
def restore(archive_file: Path, data: Path | None, yes: bool) -> None:
    """Restore a backup, or a copy that was kept. The present workspace is kept as a file first."""
    from cobblewort.commands.import_export import restored, what_would_be_replaced

    data_file = _data_file(data)
    with _owning(data_file), _wrong_input_told(), _unusable_file_told():
        for told in what_would_be_replaced(data_file, archive_file):
            click.echo(_shown(told))
        if not yes and not click.confirm("Replace the workspace?"):
            click.echo("Nothing was changed.")
            return
        click.echo(_shown(restored(data_file, archive_file)))


@main.command()
@click.argument("shell", type=click.Choice(["bash", "zsh", "fish"]))
def completion(shell: str) -> None:
    """Print the completion script of a shell; add it to its start-up file."""
    from click.shell_completion import get_completion_class

    kind = get_completion_class(shell)
    if kind is not None:
        click.echo(kind(main, {}, "cobblewort", "_COBBLEWORT_COMPLETE").source())


if __name__ == "__main__":
    main()
