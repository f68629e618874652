"""Reading a kept plan: one that this Bridle cannot read is refused in words, and can be taken along."""

from pydantic import ValidationError

from bridle.core.plan.document import Plan
from bridle.core.plan.upgrade import UpgradeError
from bridle.formats.plan_json import PlanFileError
from bridle.server.shoots.lines import CANNOT
from bridle.server.shoots.models import Shoot


def read_kept(shoot: Shoot) -> Plan:
    """The plan of a kept shoot. Raises `PlanFileError`."""
    try:
        return shoot.read()
    except UpgradeError as error:
        raise PlanFileError(f"{CANNOT}: {error}. Its plan can be taken along as a file.") from error
    except ValidationError as error:
        said = f"{CANNOT}: its plan has values that this Bridle does not know. Its plan can be taken along as a file."
        places = [f"{'.'.join(map(str, one['loc']))}: {one['msg']}" for one in error.errors()[:5]]
        raise PlanFileError(said, places) from error
