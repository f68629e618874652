"""A simulated camera: it takes a frame when told, counts what is on its card, and then writes for a while."""

from dataclasses import dataclass

from bridle.core.run.programme import Programme


@dataclass
class Camera:
    """`frames` is what lies on the card; it is the camera's own count and outlives the program."""

    programme: Programme
    frames: int = 0

    @property
    def until_shot_s(self) -> float:
        """Seconds from the trigger until the shutter has closed."""
        return self.programme.wake_s + self.programme.lag_s + self.programme.exposure_s

    @property
    def until_written_s(self) -> float:
        """Seconds from the closed shutter until the next trigger is taken."""
        return self.programme.write_s

    def take(self) -> None:
        """Close the shutter on one more frame."""
        self.frames += 1
