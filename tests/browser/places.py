"""Every place of the application, and how a test opens one."""

from playwright.sync_api import Page, expect

from sandboa.core.lay_day import Step

CLUTCH = "/clutches/26-04"
BEFORE_RECORDING = [step.value for step in Step if step not in (Step.CARD, Step.AFTERCARE)]
#: `{dam}`, `{hatchling}`, `{method}` and `{lay}` stand for ids of the demo.
PLACES = [
    "/",
    CLUTCH,
    f"{CLUTCH}/correct",
    f"{CLUTCH}/card",
    "/clutches/26-05/eggs/3",
    "/round",
    "/round/26-04",
    "/hatch",
    "/hatch/26-01",
    "/hatchlings",
    "/heard",
    "/old-records",
    "/shared",
    "/hatchlings/{hatchling}",
    "/losses",
    "/losses/25-03",
    "/seasons",
    "/labels",
    "/animals",
    "/animals/new",
    "/animals/{dam}",
    "/animals/{dam}/correct",
    "/lay-day",
    *(f"/lay-day/{{lay}}/{step}" for step in BEFORE_RECORDING),
    "/cabinets/North",
    "/cabinets/Small",
    "/cabinets/North/correct",
    "/cabinets/new",
    "/readings",
    "/notes",
    "/wall",
    "/bench",
    "/practice",
    "/you",
    "/settings",
    "/settings/numbers",
    "/settings/people",
    "/settings/backups",
    "/settings/methods/{method}",
    "/specimens",
]
IN_THE_HAND = [
    *(
        "/",
        CLUTCH,
        "/round",
        "/round/26-04",
        "/clutches/26-05/eggs/3",
        "/hatch",
        "/hatch/26-01",
        "/hatchlings",
        "/hatchlings/{hatchling}",
        "/losses/25-03",
        "/lay-day",
        "/cabinets/North",
        "/readings",
        "/animals",
        "/animals/{dam}",
        "/you",
        "/settings",
        "/settings/numbers",
    ),
    *(f"/lay-day/{{lay}}/{step}" for step in BEFORE_RECORDING),
]


def open_place(page: Page, address: str, theme: str = "bench") -> None:
    page.add_init_script(f"localStorage.setItem('sandboa.theme', '{theme}')")
    page.goto(address)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
