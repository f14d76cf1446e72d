"""Boxes corrected on screen, and those of another species in the same cabinet."""

from playwright.sync_api import Page, expect

from browser.home import Address


def test_a_box_gets_its_own_name_and_its_grid(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}/clutches/26-05")
    desk.get_by_role("button", name="Edit box 26-05").click()
    form = desk.get_by_role("form", name="Edit box 26-05")
    form.get_by_label("Its name").fill("26-04")
    form.get_by_role("button", name="Record the correction").click()
    expect(form.get_by_text("There is a box 26-04 already")).to_be_visible()
    form.get_by_label("Its name").fill("Small, left")
    form.get_by_role("radio", name="On a grid").check()
    form.get_by_label("All of it, g").fill("1392")
    form.get_by_role("button", name="Record the correction").click()
    expect(desk.get_by_role("button", name="Edit box Small, left")).to_be_visible()
    (box,) = desk.request.get(f"{own_demo.api}/api/clutches/26-05").json()["boxes"]
    assert (box["name"], box["contact"], box["set_up_mass_g"]) == ("Small, left", "on a grid", 1392)
    # Its page at the round is found by the new name.
    desk.get_by_role("link", name="Open the box").click()
    expect(desk.get_by_role("heading", name="Small, left")).to_be_visible()


def test_a_box_of_another_species_stands_in_the_cabinet(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}/cabinets/North")
    desk.get_by_role("button", name="A box of another species").click()
    form = desk.get_by_role("form", name="A box of another species")
    form.get_by_role("button", name="Record it").click()
    expect(form.get_by_text("Species: fill this in.")).to_be_visible()
    form.get_by_label("Its name").fill("Gecko 1")
    form.get_by_label("Species").fill("leopard gecko")
    form.get_by_role("button", name="Record it").click()
    expect(desk.get_by_text("Box Gecko 1 set up")).to_be_visible()
    desk.get_by_role("button", name="Gecko 1").first.click()
    expect(desk.get_by_text("leopard gecko").first).to_be_visible()
    boxes = desk.request.get(f"{own_demo.api}/api/today").json()["boxes"]
    assert "Gecko 1" not in {box["name"] for box in boxes}
    # The demo's clock stands still: nothing is put away in the moment it was set up.
    desk.get_by_role("button", name="Put it away").click()
    expect(desk.get_by_text("That is before box Gecko 1 was set up")).to_be_visible()


def test_a_box_of_another_species_is_put_away(desk: Page, own_demo: Address) -> None:
    asked = {
        "name": "Gecko 2", "species": "leopard gecko", "kind": "other species",
        "cabinet": "North", "shelf": "upper", "at": "2026-06-10T08:00:00Z",
    }  # fmt: skip
    assert desk.request.post(f"{own_demo.api}/api/boxes", data=asked).ok
    desk.goto(f"{own_demo}/cabinets/North")
    desk.get_by_role("button", name="Gecko 2").first.click()
    desk.get_by_role("button", name="Put it away").click()
    expect(desk.get_by_text("Box Gecko 2 put away").first).to_be_visible()
    expect(desk.get_by_role("button", name="Gecko 2")).to_have_count(0)


def test_a_clutch_gets_another_code(desk: Page, own_demo: Address) -> None:
    desk.goto(f"{own_demo}/clutches/26-05/correct")
    desk.get_by_label("Code").fill("26-04")
    desk.get_by_role("button", name="Record the correction").click()
    expect(desk.get_by_text("There is a clutch 26-04 already")).to_be_visible()
    desk.get_by_label("Code").fill("26-15")
    desk.get_by_role("button", name="Record the correction").click()
    expect(desk).to_have_url(f"{own_demo}/clutches/26-15")
