"""What hinders readings on their way in is told where a keeper looks."""

from playwright.sync_api import Page, expect


def test_a_refused_message_is_told_on_today_and_in_settings(desk: Page, empty: str) -> None:
    token = desk.request.post(f"{empty}/api/devices", data={"name": "Hub"}).json()["token"]

    def send(reading: dict[str, float]) -> int:
        headers = {"Authorization": f"Bearer {token}"}
        return desk.request.post(f"{empty}/api/readings", data=reading, headers=headers).status

    assert send({"humidity": 62}) == 422
    for path in ("/", "/settings", "/settings/devices"):
        desk.goto(f"{empty}{path}")
        expect(desk.get_by_text("was not taken. There is no temperature in it")).to_be_visible()
