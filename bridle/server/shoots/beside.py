"""What an evaluation is given beside the plan: the moment, and what other parts of the server have to say of it."""

import time
from collections.abc import Callable
from dataclasses import dataclass

from bridle.core.given import Given, Proved
from bridle.core.plan.document import Plan


@dataclass(slots=True)
class Sources:
    """Who is asked; whoever knows something puts itself in as it starts."""

    proofs_of: Callable[[Plan], tuple[Proved, ...]] = lambda _: ()


GIVEN = Sources()


def given_now(plan: Plan) -> Given:
    """The moment, and the proofs of the plan's print."""
    return Given(now_s=time.time(), proofs=GIVEN.proofs_of(plan))


def given_kept(plan: Plan) -> Given:
    """What is kept by version goes without the moment."""
    return Given(proofs=GIVEN.proofs_of(plan))
