"""The list of drives: a new one is put in here."""

from typing import Annotated

from pydantic import Field

from bridle.core.subjects.motion.drives.belt import Belt
from bridle.core.subjects.motion.drives.bought import Bought
from bridle.core.subjects.motion.drives.clockwork import Clockwork
from bridle.core.subjects.motion.drives.dial import Dial
from bridle.core.subjects.motion.drives.gear import Gear
from bridle.core.subjects.motion.drives.hand import ByHand
from bridle.core.subjects.motion.drives.moves import MoveDial
from bridle.core.subjects.motion.drives.rated import Rated
from bridle.core.subjects.motion.drives.screw import Screw
from bridle.core.subjects.motion.drives.stepped import SteppedSpeed

AnyDrive = Belt | Screw | Gear | Clockwork | Rated | SteppedSpeed | Dial | MoveDial | Bought | ByHand
Drive = Annotated[AnyDrive, Field(discriminator="kind")]
