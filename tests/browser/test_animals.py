"""Dams and sires: added, weighed, fed, paired, forecast and cared for, in the real interface."""

import re
from datetime import UTC, datetime, timedelta

import pytest
from playwright.sync_api import Page, expect


def add(page: Page, base: str, role: str, name: str) -> int:
    answer = page.request.post(f"{base}/api/animals", data={"role": role, "name": name})
    return answer.json()["id"]


def open_animal(page: Page, base: str, animal: int) -> None:
    page.goto(f"{base}/animals/{animal}")
    expect(page.get_by_role("heading", name="Weights")).to_be_visible()


def test_an_animal_with_its_traits_is_added_and_corrected(desk: Page, empty: str) -> None:
    sire = add(desk, empty, "sire", "Chert")
    desk.goto(f"{empty}/animals")
    desk.get_by_role("link", name="Add an animal").click()
    desk.get_by_label("Name", exact=True).fill("Costmary")
    desk.get_by_label("Hatched in").fill("next year")
    desk.get_by_role("button", name="Add a trait").click()
    desk.get_by_label("Trait 1", exact=True).fill("Puzzle")
    desk.get_by_label("Form").select_option("possible")
    desk.get_by_role("button", name="Add it").click()
    expect(desk.get_by_text("A year, like 2019, or empty.")).to_be_visible()
    desk.get_by_label("Hatched in").fill("2021")
    desk.get_by_label("In your own words").fill("shy, eats well")
    desk.get_by_label("Its sire").select_option(str(sire))
    desk.get_by_role("button", name="Add it").click()
    expect(desk.get_by_role("heading", level=1)).to_have_text("Costmary")
    expect(desk.get_by_text("dam, hatched 2021, possibly Puzzle, of Chert")).to_be_visible()
    expect(desk.get_by_text("shy, eats well")).to_be_visible()
    desk.get_by_role("link", name="Edit").click()
    desk.get_by_label("Retired from breeding").check()
    desk.get_by_label("Form").select_option("visual")
    desk.get_by_role("button", name="Record the correction").click()
    expect(desk.get_by_text("dam, retired, hatched 2021, Puzzle, of Chert")).to_be_visible()


def test_a_parent_cannot_descend_from_its_own_child(desk: Page, empty: str) -> None:
    dam = add(desk, empty, "dam", "Tansy")
    daughter = {"role": "dam", "name": "Yarrow", "dam": dam}
    made = desk.request.post(f"{empty}/api/animals", data=daughter).json()["id"]
    desk.goto(f"{empty}/animals/{dam}/correct")
    desk.get_by_label("Its dam").select_option(str(made))
    desk.get_by_role("button", name="Record the correction").click()
    expect(desk.get_by_text("descended from Tansy itself")).to_be_visible()
    assert desk.request.get(f"{empty}/api/animals/{dam}").json()["parents"] is None


@pytest.mark.parametrize(
    ("typed", "said"), [("12", "no weight of an adult"), ("20 kg", "number"), ("20000", "adult")]
)
def test_a_weight_that_no_adult_has_is_told_at_the_field(
    phone: Page, empty: str, typed: str, said: str
) -> None:
    open_animal(phone, empty, add(phone, empty, "dam", "Sorrel"))
    phone.get_by_label("Weight, g", exact=True).fill(typed)
    phone.get_by_role("button", name="Record weight").tap()
    expect(phone.get_by_role("region", name="Record a weight")).to_contain_text(said)
    expect(phone.get_by_text("Not weighed yet.")).to_be_visible()


def test_a_leap_in_weight_is_asked_about_then_taken(phone: Page, empty: str) -> None:
    dam = add(phone, empty, "dam", "Sorrel")
    phone.request.post(f"{empty}/api/animals/{dam}/weights", data={"mass_g": 1850})
    open_animal(phone, empty, dam)
    phone.get_by_label("Weight, g", exact=True).fill("850")
    phone.get_by_role("button", name="Record weight").tap()
    expect(phone.get_by_text("1850 g before, now 850 g")).to_be_visible()
    phone.get_by_role("button", name=re.compile("^Yes")).tap()
    expect(phone.get_by_role("status").filter(has_text="850 g")).to_be_visible()
    weights = phone.request.get(f"{empty}/api/animals/{dam}").json()["weights"]
    assert [w["mass_g"] for w in weights] == [1850, 850]


def test_meals_refusals_and_a_sign_by_thumb(phone: Page, empty: str) -> None:
    open_animal(phone, empty, add(phone, empty, "dam", "Sorrel"))
    phone.get_by_role("button", name="Refused").tap()
    expect(phone.get_by_role("region", name="Meals", exact=True)).to_contain_text("refused")
    phone.get_by_role("radio", name="Pre-lay shed").tap()
    phone.get_by_role("button", name="Record pre-lay shed").tap()
    laying = phone.get_by_role("region", name="Laying")
    expect(laying).to_contain_text("pre-lay shed")
    phone.goto(f"{empty}/animals")
    expect(phone.get_by_role("region", name="Season")).to_contain_text("Sorrel")


def test_visits_are_planned_begun_locked_and_ended(desk: Page, empty: str) -> None:
    add(desk, empty, "dam", "Sorrel")
    add(desk, empty, "sire", "Flint")
    desk.goto(f"{empty}/animals")
    visits = desk.get_by_role("region", name="Next visits")
    expect(visits).to_contain_text("Nobody is planned")
    visits.get_by_label("Sire").select_option(label="Flint")
    visits.get_by_label("Dam").select_option(label="Sorrel")
    visits.get_by_role("button", name="Plan the pair").click()
    line = visits.get_by_role("listitem")
    expect(line).to_contain_text("Flint to Sorrel")
    expect(line).to_contain_text("Sorrel has no weight recorded")
    line.get_by_role("button", name="Together now").click()
    expect(line).to_contain_text("together since")
    line.get_by_role("button", name="Lock seen").click()
    expect(desk.get_by_role("status").filter(has_text="lock")).to_be_visible()
    line.get_by_role("button", name="Parted").click()
    expect(line).to_contain_text("from ")


def test_a_visit_of_the_past_is_told_with_its_dates_and_lock(desk: Page, empty: str) -> None:
    dam = add(desk, empty, "dam", "Sorrel")
    add(desk, empty, "sire", "Flint")
    open_animal(desk, empty, dam)
    form = desk.get_by_role("region", name="Record a sign or a visit")
    record = form.get_by_role("button", name="Record the visit")
    record.click()
    expect(form).to_contain_text("Paired with: choose one.")
    form.get_by_label("Paired with").select_option(label="Flint")
    for name in ("From, if not now", "Until, if over", "Lock seen, if any"):
        form.get_by_label(name).click()
    form.get_by_label("From, if not now").fill("2026-02-03T20:00")
    form.get_by_label("Until, if over").fill("2026-02-01T08:00")
    record.click()
    expect(form).to_contain_text("It cannot end before it began")
    form.get_by_label("Until, if over").fill("2026-02-05T08:00")
    form.get_by_label("Lock seen, if any").fill("2026-02-09T08:00")
    record.click()
    expect(form).to_contain_text("The two were not together then")
    form.get_by_label("Lock seen, if any").fill("2026-02-04T08:00")
    record.click()
    pairings = desk.get_by_role("region", name="Pairings and signs")
    expect(pairings).to_contain_text(re.compile("3 Feb 2026.*Flint until 5 Feb, 1 lock"))


def test_today_says_who_lays_next_what_is_due_and_which_cabinet_is_ready(
    desk: Page, demo: str
) -> None:
    desk.goto(demo)
    coming = desk.get_by_role("region", name="Next to lay")
    expect(coming).to_contain_text("Costmary")
    expect(coming).to_contain_text("most likely")
    expect(coming).to_contain_text("North")
    needs = desk.get_by_role("region", name="What needs you")
    expect(needs).to_contain_text("Yarrow has taken nothing since laying")
    expect(needs).to_contain_text("still losing weight")


def test_the_preparation_list_counts_back_and_is_ticked(desk: Page, empty: str) -> None:
    dam = add(desk, empty, "dam", "Sorrel")
    shed = {"dam": dam, "sign": "pre-lay shed"}
    assert desk.request.post(f"{empty}/api/breeding/signs", data=shed).ok
    signs = desk.request.get(f"{empty}/api/breeding").json()["dams"][0]["signs"]
    assert [s["sign"] for s in signs] == ["pre-lay shed"]
    open_animal(desk, empty, dam)
    laying = desk.get_by_role("region", name="Laying")
    ticks = laying.get_by_role("checkbox")
    expect(ticks.first).to_be_visible()
    ticks.first.click()
    expect(desk.get_by_role("status").filter(has_text="Sorrel")).to_be_visible()
    desk.reload()
    expect(laying.get_by_role("checkbox").first).to_be_checked()


def lay(page: Page, base: str) -> None:
    """Sorrel's clutch of one egg, two days ago."""
    clutch = {
        "dam": "Sorrel", "laid_at": (datetime.now(UTC) - timedelta(days=2)).isoformat(),
        "eggs": [{"x": 0.5, "y": 0.5}], "medium": "vermiculite", "closing": "sealed film",
        "cabinet": "North", "shelf": "lower", "set_point_c": 31.5, "code": "A-1",
    }  # fmt: skip
    assert page.request.post(f"{base}/api/clutches", data=clutch).ok


def test_aftercare_is_ticked_where_it_stands(desk: Page, empty: str) -> None:
    lay(desk, empty)
    dam = desk.request.get(f"{empty}/api/animals").json()[0]["id"]
    open_animal(desk, empty, dam)
    after = desk.get_by_role("region", name="After laying")
    waiting = after.get_by_role("button", name="Done")
    expect(waiting).to_have_count(3)
    waiting.first.click()
    expect(waiting).to_have_count(2)
    expect(after).to_contain_text("Done: ")


def test_a_house_method_is_changed_and_the_clutch_keeps_its_copy(desk: Page, empty: str) -> None:
    lay(desk, empty)
    desk.goto(f"{empty}/settings/methods")
    methods = desk.get_by_role("region", name="Methods")
    methods.get_by_role("listitem").get_by_role("link").first.click()
    desk.get_by_label("Name", exact=True).fill("Cooler")
    desk.get_by_label("Temperature", exact=False).first.fill("30.5")
    desk.get_by_role("button", name="Save the method").click()
    expect(methods).to_contain_text("Cooler")
    desk.goto(f"{empty}/clutches/A-1")
    expect(desk.get_by_role("region", name="Method")).to_contain_text("31.5 °C, not 30.5 °C")


def test_the_keepers_traits_give_the_odds_of_a_pair(desk: Page, own_demo: str) -> None:
    desk.goto(f"{own_demo}/animals")
    odds = desk.get_by_role("region", name="What a pair can produce")
    odds.get_by_label("Dam of the pair").select_option("Costmary")
    odds.get_by_label("Sire of the pair").select_option("Flint")
    forms = odds.get_by_role("list", name="What the pair can produce")
    expect(forms).to_contain_text("double Asphalt")
    expect(odds).to_contain_text("25 % of its eggs get a double form you marked as harmful")
    traits = desk.get_by_role("region", name="Your traits")
    traits.get_by_role("button", name="Change Asphalt").click()
    form = traits.get_by_role("form", name="Trait Asphalt")
    form.get_by_label("Two copies").select_option("dies")
    form.get_by_role("button", name="Change it").click()
    expect(traits).to_contain_text("double form dies")
    expect(odds).to_contain_text("About 25 % of its eggs get a double form that dies")
    traits.get_by_role("button", name="Put a trait on the list").click()
    new = traits.get_by_role("form", name="New trait")
    new.get_by_label("Trait").fill("asphalt")
    new.get_by_role("button", name="Put it on the list").click()
    expect(new.get_by_text("Asphalt is on your list already")).to_be_visible()
