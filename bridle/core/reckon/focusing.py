"""Focus stacks that a motor on the focus ring steps through: where the ring stands, exposure by exposure."""

from bridle.core.plan.document import Plan
from bridle.core.reckon.exposed import focus_distances_mm, stack_positions
from bridle.core.reckon.framings import visits_a_cycle
from bridle.core.reckon.picture import longest_lens

# No drive is told more pictures than this one by one; a camera that steps by itself is.
MOST_ORDERS = 300_000


def driven_stack_mm(plan: Plan, frames: int) -> tuple[float, ...]:
    """The distances that a motor goes through at each place, from near to far, in mm.

    Empty where the camera steps by itself: no motor turns the ring, the move never stops for one, or there are more
    pictures than a drive is told.
    """
    if plan.beat.stack is None or plan.beat.continuous or plan.rig.axis("focus") is None:
        return ()
    camera = longest_lens(plan)
    if stack_positions(plan.beat, camera) * visits_a_cycle(plan) * frames > MOST_ORDERS:
        return ()
    return tuple(focus_distances_mm(plan.beat, camera))
