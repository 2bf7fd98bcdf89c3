"""The command line: serve the page, and judge a plan file."""

from __future__ import annotations

import gc
import os
import shutil
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Annotated

import typer

# One thread for linear algebra: its small products only lose time to more. Set before numpy loads.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

app = typer.Typer(
    no_args_is_help=True,
    add_completion=False,
    help="Plan a single-board-computer appliance before buying it.",
    pretty_exceptions_enable=False,
)

DATA_NAME = "cobblewort.sqlite3"


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


def _run(folder: Path, port: int) -> None:
    with _made_to_stay():
        import uvicorn

        from cobblewort.api.app import create_app
        from cobblewort.store.database import StoreError

        try:
            application = create_app(folder / DATA_NAME)
        except StoreError as error:
            typer.echo(str(error), err=True)
            raise typer.Exit(2) from error
    typer.echo(f"Cobblewort is at http://127.0.0.1:{port}  (stop it with Ctrl+C)")
    uvicorn.run(application, host="127.0.0.1", port=port, log_level="warning")


Data = Annotated[Path | None, typer.Option(help="Folder to keep plans in.")]
Port = Annotated[int, typer.Option(min=1, max=65535, help="Port on 127.0.0.1.")]


@app.command()
def serve(data: Data = None, port: Port = 8000) -> None:
    """Serve the page on this machine, with your own plans."""
    _run(_data_folder(data), port)


@app.command()
def demo(
    data: Annotated[Path, typer.Option(help="Folder to keep the demo in.")] = Path("var/demo"),
    port: Port = 8000,
    reset: Annotated[bool, typer.Option(help="Bring the demo plans back and stop.")] = False,
) -> None:
    """Serve the page with demo plans; what you change in them is kept."""
    with _made_to_stay():
        from cobblewort.demo import fill_with_demo

    if reset and data.exists():
        for file in data.glob(f"{DATA_NAME}*"):
            file.unlink()
    fill_with_demo(data / DATA_NAME)
    if reset:
        typer.echo("The demo plans are as they came.")
        return
    _run(data, port)


@app.command()
def check(
    plan_file: Annotated[Path, typer.Argument(metavar="PLAN", help="Plan file, JSON or YAML.")],
    parts: Annotated[
        list[Path] | None, typer.Option(help="Part pack besides the shipped parts; repeatable.")
    ] = None,
    ambient: Annotated[
        float | None, typer.Option(min=-60, max=90, help="Hottest day instead of the plan's, °C.")
    ] = None,
    samples: Annotated[
        int, typer.Option(min=1, max=4096, help="Values a figure; 1: nominal.")
    ] = 256,
    json: Annotated[bool, typer.Option("--json", help="Print the whole report as JSON.")] = False,
) -> None:
    """Judge a plan file. Exit 0: nothing stops it; 1: something does; 2: the file is wrong."""
    from pydantic import TypeAdapter

    from cobblewort.core.errors import InputError
    from cobblewort.core.evaluate import evaluate
    from cobblewort.core.report import Report
    from cobblewort.core.what_if import what_if
    from cobblewort.formats.documents import pack_from, parse_document, plan_from
    from cobblewort.formats.shipped import shipped_catalogue
    from cobblewort.formats.text import report_text

    try:
        catalogue = shipped_catalogue()
        for pack in parts or ():
            catalogue = catalogue.extended(pack_from(parse_document(pack)))
        plan = plan_from(parse_document(plan_file))
        report = evaluate(what_if(plan, ambient), catalogue, samples)
    except InputError as error:
        for place, text in error.problems:
            typer.echo(f"{place}: {text}" if place else text, err=True)
        raise typer.Exit(2) from error
    if json:
        typer.echo(TypeAdapter(Report).dump_json(report, indent=2).decode())
    else:
        width = shutil.get_terminal_size((100, 24)).columns
        typer.echo(report_text(report, width))
    raise typer.Exit(1 if report.severity == "stops" else 0)


def main() -> None:
    """Entry point of the `cobblewort` command."""
    app()


if __name__ == "__main__":
    main()
