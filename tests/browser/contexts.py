"""Browser contexts, shared by tests one after the other."""

from contextlib import suppress

from playwright.sync_api import Browser, BrowserContext, CDPSession, Error, Page

from samples import ZONE


def new_context(chromium: Browser, options: dict[str, object]) -> BrowserContext:
    """The browser of somebody who lives in the tests' zone, and waits a minute at most."""
    made = chromium.new_context(timezone_id=ZONE, locale="en-GB", **options)  # type: ignore[arg-type]
    made.set_default_timeout(60_000)
    return made


class Contexts:
    """One browser context for each kind of page, for making one takes seconds.

    What a page left behind goes with it: cookies, and the storage of every
    house that was opened.
    """

    def __init__(self, chromium: Browser) -> None:
        self._chromium = chromium
        self._made: dict[str, BrowserContext] = {}
        #: Of each context, a page that stays, through which storage is cleared.
        self._stays: dict[BrowserContext, tuple[Page, CDPSession]] = {}

    def of(self, options: dict[str, object]) -> BrowserContext:
        key = repr(sorted(options.items()))
        if key not in self._made:
            self._made[key] = made = new_context(self._chromium, options)
            stays = made.new_page()
            self._stays[made] = (stays, made.new_cdp_session(stays))
        return self._made[key]

    def forget(self, context: BrowserContext, origins: set[str]) -> None:
        """Close what is open, and leave nothing of those houses on the device."""
        stays, session = self._stays[context]
        context.set_offline(False)
        context.unroute_all()
        if origins:
            # A page at the same house keeps its process, with what was compiled of the scripts;
            # a house that is gone cannot.
            with suppress(Error):
                stays.goto(f"{min(origins)}/icon.svg")
        for page in context.pages:
            if page is not stays:
                page.close()
        for origin in origins:
            session.send("Storage.clearDataForOrigin", {"origin": origin, "storageTypes": "all"})
        context.clear_cookies()
        context.clear_permissions()
