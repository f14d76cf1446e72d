"""A thumb on a phone that counts what it does."""

from dataclasses import dataclass

from playwright.sync_api import Locator, Page


@dataclass
class Thumb:
    """Touches the page, and counts: taps, drags and fields typed into."""

    page: Page
    taps: int = 0

    def tap(self, target: Locator) -> None:
        target.tap()
        self.taps += 1

    def drag(self, target: Locator, by: tuple[float, float]) -> None:
        """A finger put down, moved in small steps and lifted: real touch events."""
        target.scroll_into_view_if_needed()
        box = target.bounding_box()
        assert box
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        touch = self.page.context.new_cdp_session(self.page)
        for kind, share in (("Start", 0.0), *(("Move", n / 6) for n in range(1, 7)), ("End", 1.0)):
            point = {"x": x + by[0] * share, "y": y + by[1] * share}
            points = [] if kind == "End" else [point]
            touch.send("Input.dispatchTouchEvent", {"type": f"touch{kind}", "touchPoints": points})
        self.taps += 1
