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
    _written_at: list[float] = field(default_factory=list)

    def until_shot_s(self, frame: int) -> float:
        """Seconds from the trigger of a frame until the shutter has closed; awake after the first of a round."""
        return self._lead_s(frame) + self.programme.exposure_s(frame)

    def _lead_s(self, frame: int) -> float:
        return self.programme.lag_s + (0.0 if frame % self.programme.visits else self.programme.wake_s)

    def until_written_s(self, now_s: float, frame: int = 0) -> float:
        """Seconds from the shutter of a frame that closes now until the next trigger is taken.

        A picture takes its place in the buffer when it is begun, and leaves it when it is written.
        """
        programme = self.programme
        process = programme.process_s(frame)
        if not programme.buffer_frames:
            return process + programme.write_s
        opened = now_s - programme.exposure_s(frame)
        self._written_at = [at for at in self._written_at if at > opened]
        for start in programme.begun_s(frame):
            self._written_at.append(max([opened + start, *self._written_at[-1:]]) + programme.write_s)
        lead, coming = self._lead_s(frame + 1), programme.begun_s(frame + 1)
        opens = [now_s + lead + process, *self._written_at]
        waits = sorted({max(process, at - lead - now_s - start) for at in opens for start in coming})
        return next((wait for wait in waits if self._has_room(now_s + lead + wait, coming)), waits[-1])

    def _has_room(self, opens_s: float, begun_s: tuple[float, ...]) -> bool:
        """Whether a frame that opens then finds room for each of its pictures, what comes in meanwhile counted."""
        programme, written = self.programme, list(self._written_at)
        for start in begun_s:
            at = opens_s + start
            if sum(one > at + 1e-9 for one in written) >= programme.buffer_frames:
                return False
            written.append(max([at, *written[-1:]]) + programme.write_s)
        return True

    def take(self) -> None:
        """Close the shutter on one more frame."""
        self.frames += 1
