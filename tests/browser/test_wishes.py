"""Four wishes of somebody who sees the program for the first time, each in a few steps."""

from __future__ import annotations

from dataclasses import dataclass

import pytest
from playwright.sync_api import Page, expect


@dataclass(frozen=True)
class Wish:
    """What is chosen on New plan, step by step: a purpose, its kind, selects, a requirement."""

    purpose: str
    kind: str = ""
    selects: tuple[tuple[str, str], ...] = ()
    besides: str = ""
    has: tuple[str, ...] = ()
    without: tuple[str, ...] = ()


WISHES = {
    "a weather mast on battery and sun": Wish(
        "Climate or tide logger",
        selects=(("Location", "Outdoors, in the shade"), ("Power source", "Solar")),
        has=("Sunleaf",),
        without=("Kettle", "Micro 12"),
    ),
    "a stereo recorder": Wish(
        "Audio recorder", kind="Stereo", has=("Choirdesk 2",), without=("Choirdesk 16",)
    ),
    "a scan keeper that survives a failed disk": Wish(
        "Shared file store, one disk",
        besides="survives a disk failure",
        has=("2 × ",),
    ),
    "a tide board in a harbour hut": Wish(
        "Climate or tide logger",
        kind="With a screen",
        selects=(("Location", "Damp cellar"),),
        has=("Glint",),
    ),
}
MOST_STEPS = 8


@pytest.mark.parametrize("wish", WISHES.values(), ids=WISHES.keys())
def test_a_wish_ends_in_a_kit_that_one_would_buy(page: Page, server: str, wish: Wish) -> None:
    """No problem and nothing tight, nothing useless, every requirement met; then order it."""
    steps = 0
    page.goto(f"{server}/new")
    page.get_by_label(wish.purpose, exact=True).check()
    steps += 1
    if wish.kind:
        page.get_by_label(wish.kind, exact=True).check()
        steps += 1
    for label, option in wish.selects:
        page.get_by_label(label, exact=True).select_option(label=option)
        steps += 1
    if wish.besides:
        page.get_by_label("Add a requirement").select_option(label=wish.besides)
        page.get_by_role("button", name="Add requirement").click()
        steps += 2
    create = page.get_by_role("button", name="Create with this kit")
    expect(create).to_be_enabled(timeout=30_000)
    expect(page.locator(".first-kit")).to_contain_text("No problems found")
    create.click()
    steps += 1
    expect(page.locator(".next-step")).to_contain_text("order the parts")
    assert steps <= MOST_STEPS
    kit = page.locator(".kit-list").inner_text()
    for part in wish.has:
        assert part in kit
    for part in wish.without:
        assert part not in kit
    plan_id = page.url.split("/plans/")[1].split("/")[0].split("?")[0]
    report = page.request.get(f"{server}/api/plans/{plan_id}/report").json()
    assert {one["severity"] for one in report["findings"]} <= {"note"}
    assert {one["status"] for one in report["purpose"]} <= {"met", "met_if"}
