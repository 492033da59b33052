"""The two ways in which a maker works a screen: keys at a desk, a thumb on a phone."""

from __future__ import annotations

from playwright.sync_api import Locator, Page

from tests.browser.conftest import settled, tab_to


class Keys:
    """Keyboard only: what Tab does not reach cannot be pressed."""

    def __init__(self, page: Page):
        self.page = page

    def place(self, number: int) -> None:
        self.page.keyboard.press("Escape")
        self.page.keyboard.press(str(number))

    def press(self, target: Locator) -> None:
        tab_to(self.page, target)
        self.page.keyboard.press("Enter")
        settled(self.page)

    def write(self, target: Locator, text: str) -> None:
        tab_to(self.page, target)
        self.page.keyboard.press("Control+a")
        self.page.keyboard.type(text)

    def choose(self, target: Locator, words: str) -> None:
        """A list answers to the letters typed while it has the focus."""
        tab_to(self.page, target)
        self.page.keyboard.type(words)

    def enter(self) -> None:
        self.page.keyboard.press("Enter")
        settled(self.page)


class Thumb:
    """Touch only: taps, and the keyboard that the phone shows in a field."""

    def __init__(self, page: Page):
        self.page = page

    def place(self, number: int) -> None:
        if number == 0:
            return self.press(self.page.locator(".house"))
        self.press(self.page.locator(".fold summary"))
        return self.press(self.page.locator(f'nav [data-key="{number}"]'))

    def press(self, target: Locator) -> None:
        target.tap()
        settled(self.page)

    def write(self, target: Locator, text: str) -> None:
        target.tap()
        target.fill(text)

    def choose(self, target: Locator, words: str) -> None:
        """The phone's own list of options, which it shows for the field that was touched."""
        target.focus()
        label = target.locator("option").filter(has_text=words).first.text_content()
        target.select_option(label=label)

    def enter(self) -> None:
        """The button that a thumb finds: the ink one."""
        self.press(self.page.locator(".btn.ink:visible").first)
