"""The buttons of a wired headset: what they put across its microphone contacts, by the published specification."""

from typing import Literal

Key = Literal["play", "volume up", "volume down", "assistant"]
# What a button is made with, in ohms, and what a phone takes for it.
OHMS: dict[Key, float] = {"play": 0.0, "assistant": 135.0, "volume up": 240.0, "volume down": 470.0}
READ_AS: tuple[tuple[Key, float, float], ...] = (
    ("play", 0.0, 70.0),
    ("assistant", 110.0, 180.0),
    ("volume up", 210.0, 290.0),
    ("volume down", 360.0, 680.0),
)


def key_of(ohms: float | None) -> Key | None:
    """The key that a phone takes so many ohms for; None between the keys, and where nothing is pressed."""
    if ohms is None:
        return None
    return next((key for key, low, high in READ_AS if low <= ohms <= high), None)
