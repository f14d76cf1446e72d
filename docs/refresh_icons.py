"""The icons of the installed application, drawn from frontend/public/icon.svg.

Run it after that one has changed: PYTHONPATH=tests python -m docs.refresh_icons
"""

from pathlib import Path
from typing import Final

from playwright.sync_api import sync_playwright

from running import CHROMIUM_FLAGS, chromium_here

_PUBLIC: Final = Path(__file__).parent.parent / "frontend" / "public"
#: File, pixels, and how much of the side the drawing takes. Systems cut a maskable icon to a circle
#: of 0.8 of its side, so the egg stands within that.
_ICONS: Final = (
    ("icon-192.png", 192, 1.0),
    ("icon-512.png", 512, 1.0),
    ("icon-maskable-512.png", 512, 0.8),
    ("apple-touch-icon.png", 180, 0.9),
)


def main() -> None:
    """Draw each icon on the paper it has in the application."""
    drawing = (_PUBLIC / "icon.svg").read_text()
    paper = drawing.partition('fill="')[2].partition('"')[0]
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path=chromium_here(), args=list(CHROMIUM_FLAGS)
        )
        for name, pixels, share in _ICONS:
            page = browser.new_page(viewport={"width": pixels, "height": pixels})
            page.set_content(
                f"<body style='margin:0;background:{paper};display:grid;place-items:center;"
                f"height:100vh'><div style='width:{share:.0%};height:{share:.0%}'>{drawing}"
            )
            page.screenshot(path=_PUBLIC / name)
            page.close()
        browser.close()


if __name__ == "__main__":
    main()
