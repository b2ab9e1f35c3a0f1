"""Driving the built front end: a server on a data file, a browser without a screen."""

from __future__ import annotations

import os
import re
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import date
from functools import cache
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from selenium import webdriver
from selenium.common.exceptions import StaleElementReferenceException, TimeoutException
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.by import By
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

from dialback.demo.club import COACH
from dialback.demo.load import load_demo
from dialback.store.database import open_database
from dialback.store.journal import Actor, acting
from dialback.web.app import create_app
from dialback.web.serve import listen
from tests.conftest import PATIENCE
from tests.shared import made_once

AXE = (Path(__file__).parents[2] / "frontend/node_modules/axe-core/axe.min.js").read_text()
SEEN = """
const apart = [...document.querySelectorAll("div")].flatMap(
  one => one.shadowRoot ? [...one.shadowRoot.querySelectorAll(".cm-editor")] : []);
return [document.body, ...apart].map(one => one.innerText).join("\\n")
"""
"""What is seen of the page and of the editor, which stands in a tree of its own."""
WAIT_S = float(os.environ.get("DIALBACK_WAIT_S", 120))
"""Longer than anything takes on a machine that is busy with a dozen other things."""
FLAGS = (
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-dev-shm-usage",
    "--hide-scrollbars",
    "--force-device-scale-factor=1",
)


@cache
def demo_file(today: date) -> bytes:
    """The data file of the demo club, which takes seconds to make: once for all that want one."""

    def make() -> bytes:
        with TemporaryDirectory() as place:
            data = Path(place) / "demo.sqlite"
            coach = Actor(COACH, "command line", today)
            with open_database(data).connection_context(), acting(coach):
                load_demo(today)
            return data.read_bytes()

    return made_once(f"demo-of-{today}", make)


class Club:
    """The application with the demo club, or nobody, on a port of this machine that it keeps."""

    def __init__(self, data: Path, today: date, *, empty: bool = False) -> None:
        if not empty:
            data.write_bytes(demo_file(today))
        self._app = create_app(data, today=lambda: today, patience=PATIENCE)
        self._port = 0
        self.start()

    def start(self) -> None:
        """Serve, on the same port as before."""
        self._server = listen(self._app, "127.0.0.1", self._port)
        self._port = self._server.effective_port
        threading.Thread(target=self._server.run, daemon=True).start()

    def stop(self) -> None:
        """Cut everybody off."""
        self._server.close()
        for channel in list(self._server.active_channels.values()):
            channel.close()
        # Who still calculates when the interpreter ends would take it down with them.
        self._server.task_dispatcher.shutdown(timeout=WAIT_S)

    @property
    def base(self) -> str:
        """Where it is."""
        return f"http://127.0.0.1:{self._port}"


@contextmanager
def served(data: Path, today: date, *, empty: bool = False) -> Iterator[str]:
    """The application on a free port of the loopback address: with the demo club, or nobody."""
    with running(data, today, empty=empty) as club:
        yield club.base


@contextmanager
def running(data: Path, today: date, *, empty: bool = False) -> Iterator[Club]:
    """The same, to be cut off and started again."""
    club = Club(data, today, empty=empty)
    try:
        yield club
    finally:
        club.stop()


@contextmanager
def browser(width: int = 1280, height: int = 800) -> Iterator[webdriver.Chrome]:
    """A browser window of that size, in light colours, in a new profile."""
    options = Options()
    options.binary_location = "/usr/bin/chromium"
    for flag in FLAGS:
        options.add_argument(flag)
    options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
    driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
    resize(driver, width, height)
    colours(driver, "light")
    try:
        yield driver
    finally:
        driver.quit()


def resize(driver: webdriver.Chrome, width: int, height: int) -> None:
    driver.execute_cdp_cmd(
        "Emulation.setDeviceMetricsOverride",
        {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False},
    )


def colours(driver: webdriver.Chrome, scheme: str) -> None:
    driver.execute_cdp_cmd(
        "Emulation.setEmulatedMedia",
        {"features": [{"name": "prefers-color-scheme", "value": scheme}]},
    )


def before_each_page(driver: webdriver.Chrome, *sources: str) -> None:
    """Scripts that every page begins with: stand-ins for what the device has."""
    for source in sources:
        driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": source})


class There(WebElement):
    """What is found at a place: looked for again where the page has put another in its stead."""

    def __init__(self, find: Callable[[], WebElement]) -> None:
        element = find()
        super().__init__(element.parent, element.id)
        self._find = find

    def _execute(self, command: str, params: dict[str, Any] | None = None) -> Any:
        try:
            return super()._execute(command, params)
        except StaleElementReferenceException:
            self._id = self._find().id
            return super()._execute(command, params)


class Coach:
    """Somebody at the screen: opens places, reads, clicks, types."""

    def __init__(self, driver: webdriver.Chrome, base: str) -> None:
        self.driver = driver
        self.base = base

    def open(self, path: str, sees: str) -> None:
        self.driver.get(self.base + path)
        self.sees(sees)

    def wait(self, what: Callable[[], Any], why: str) -> Any:
        # React replaces elements under one's hands; whatever fails is tried again.
        waiting = WebDriverWait(self.driver, WAIT_S, 0.05, ignored_exceptions=(Exception,))
        try:
            return waiting.until(lambda _: what(), why)
        except TimeoutException:
            # What is there instead says more than what is not.
            at = f"{self.driver.current_url}, which says: {self.text()[:1500]}"
            raise AssertionError(f"{why} at {at}") from None

    def holds(self, what: Callable[[], Any]) -> None:
        """What is said of the page is so, or soon will be.

        Nothing read of a page is asserted right away: a busy machine shows it a moment later.
        """
        self.wait(what, "it does not hold")

    def text(self) -> str:
        """What is seen of the page, line by line.

        Of the browser's own making: the driver's takes thirty times as long, and is asked for all
        the time.
        """
        seen = self.driver.execute_script(SEEN)
        lines = (re.sub(r"[ \t\xa0]+", " ", line).strip() for line in seen.splitlines())
        return "\n".join(filter(None, lines))

    def sees(self, words: str) -> None:
        self.wait(lambda: words in self.text(), f"does not see {words!r}")

    def sees_no(self, words: str) -> None:
        self.wait(lambda: words not in self.text(), f"still sees {words!r}")

    def find(self, xpath: str) -> WebElement:
        def found() -> WebElement:
            return self.wait(
                lambda: self.driver.find_element(By.XPATH, xpath), f"nothing at {xpath}"
            )

        return There(found)

    def all(self, css: str) -> list[WebElement]:
        return self.driver.find_elements(By.CSS_SELECTOR, css)

    def click(self, words: str, tag: str = "*") -> None:
        place = f"//{tag}[normalize-space(.)='{words}' or @aria-label='{words}']"
        # Nobody presses what is greyed out.
        self.wait(lambda: self.find(place).is_enabled(), f"cannot press {words!r}")
        self.find(place).click()

    def field(self, label: str) -> WebElement:
        return self.find(f"//*[self::input or self::select][@aria-label='{label}']")

    def type(self, *keys: str) -> None:
        for key in keys:
            self.driver.switch_to.active_element.send_keys(key)

    def address(self, part: str) -> None:
        self.wait(lambda: part in self.driver.current_url, f"is not at {part}")

    def axe(self) -> list[Any]:
        """What an accessibility check finds: rules with the first places that break them.

        The names of controls must have what is seen of them, for those who speak to them.
        """
        self.driver.execute_script(AXE)
        look = (
            "axe.run(document, {runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa',"
            " 'wcag22aa'], rules: {'label-content-name-mismatch': {enabled: true}}})"
            ".then(found => arguments[0](found.violations.map(one => [one.id,"
            " one.nodes.slice(0, 3).map(node => node.html + ' ' + node.failureSummary)])))"
        )

        def looked() -> list[Any]:
            # A page that changes while it is looked at makes axe stumble: it looks again.
            return self.wait(lambda: [self.driver.execute_async_script(look)], "axe cannot look")[0]

        moves = "return document.getAnimations().some(one => one.playState === 'running')"
        if found := looked():
            # Half faded in is not what anybody reads.
            self.wait(lambda: not self.driver.execute_script(moves), "it never comes to rest")
            found = looked()
        return found

    def complaints(self) -> list[str]:
        return [
            line["message"]
            for line in self.driver.get_log("browser")
            if line["level"] in ("SEVERE", "WARNING")
        ]
