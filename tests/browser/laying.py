"""Lay day in the browser: its steps by name, and the shortest way to the box."""

from typing import Any

from playwright.sync_api import Page, expect


def next_step(page: Page, title: str) -> None:
    expect(page.get_by_role("heading", level=1)).to_have_text(title)


def begin(page: Page, base: str, dam: str = "Costmary") -> None:
    """A lay day begun, standing at its first step."""
    page.goto(f"{base}/lay-day")
    page.get_by_label("Dam").fill(dam)
    page.get_by_role("button", name="Begin lay day").click()
    next_step(page, "Get everything ready")


def answer_all_up_to_the_box(page: Page, count: int = 3) -> None:
    """The shortest way from the first step to the box: all eggs good, nothing happened."""
    page.get_by_role("button", name="All ready").click()
    page.get_by_role("radio", name="No, hollow").click()
    page.get_by_role("button", name="Next").click()
    page.get_by_role("button", name="All marked").click()
    page.get_by_role("radio", name=str(count), exact=True).first.click()
    page.get_by_role("button", name=f"{count}-0, next").click()
    page.get_by_role("button", name="So they lie").click()
    for number in range(1, count + 1):
        expect(page.get_by_text(f"Egg {number} of {count}")).to_be_visible()
        page.get_by_role("button", name="Good: disc on top").click()
    page.get_by_role("button", name="Nothing happened, next").click()
    next_step(page, "The box")


def draft_once(page: Page, holds: str) -> dict[str, Any]:
    """The open lay day as the house has it, once `holds` (a function in JavaScript) says so.

    A step is left at once and stored behind it.
    """
    day = page.evaluate(
        f"""async path => {{
            const ends = performance.now() + 60_000
            for (;;) {{
                const day = await (await fetch(path)).json()
                if (({holds})(day)) return day
                if (performance.now() > ends) return null
                await new Promise(requestAnimationFrame)
            }}
        }}""",
        f"/api/lay-day-drafts/{page.url.split('/')[-2]}",
    )
    assert day is not None, f"the house never came to {holds}"
    return day
