"""The house as a phone finds it: by a name in its network, over plain http, signed in."""

from playwright.sync_api import BrowserContext

#: The name of the house in its network; Chromium is told that it leads here.
HOME = "sandboa.home"


class Address(str):
    """Where a page opens the house; `api` is where tests ask it without a browser.

    `signs_in` is the name and passphrase to sign in with, None where nobody has to.
    """

    api: str
    signs_in: tuple[str, str] | None


def at(base: str, signs_in: tuple[str, str] | None) -> Address:
    """The house that listens at `base`: under its own name where others may come in."""
    address = Address(base.replace("127.0.0.1", HOME) if signs_in else base)
    address.api, address.signs_in = base, signs_in
    return address


def sign_in(context: BrowserContext, house: Address) -> None:
    """Sign a browser in, where anybody has to; requests without a page are signed in too."""
    if house.signs_in is None:
        return
    name, passphrase = house.signs_in
    said = {"name": name, "passphrase": passphrase}
    assert context.request.post(f"{house.api}/api/session", data=said).status == 204
    # The session, and the mark of a device that was signed in.
    here = [{**cookie, "domain": HOME} for cookie in context.cookies()]
    context.add_cookies(here)  # type: ignore[arg-type]
