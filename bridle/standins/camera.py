"""A simulated camera: it takes a frame when told, counts what is on its card, and then writes for a while."""

from dataclasses import dataclass, field

from bridle.core.run.programme import Programme


@dataclass
class Camera:
    """`frames` is what lies on the card; it is the camera's own count and outlives the program.

    With a buffer it takes the next trigger as soon as there is room for it.
    """

    programme: Programme
    frames: int = 0
    _free_at: list[float] = field(default_factory=list)

    @property
    def until_shot_s(self) -> float:
        """Seconds from the trigger until the shutter has closed."""
        return self.programme.wake_s + self.programme.lag_s + self.programme.exposure_s

    def until_written_s(self, now_s: float) -> float:
        """Seconds from the shutter that closes now until the next trigger is taken."""
        programme = self.programme
        if not programme.buffer_frames:
            return programme.process_s + programme.write_s
        ready = now_s + programme.process_s
        self._free_at = [at for at in self._free_at if at > now_s]
        for _ in range(programme.pictures):
            self._free_at.append(max([ready, *self._free_at[-1:]]) + programme.write_s)
        # Room comes when so many pictures are written that the next frame's fit in.
        over = len(self._free_at) + programme.pictures - max(programme.buffer_frames, programme.pictures)
        return max(programme.process_s, self._free_at[over - 1] - now_s) if over > 0 else programme.process_s

    def take(self) -> None:
        """Close the shutter on one more frame."""
        self.frames += 1
