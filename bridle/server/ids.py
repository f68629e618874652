"""Numbers under which things are kept, as an address or a request may name them."""

from typing import Annotated

from ninja import Path
from pydantic import Field

# SQLite's largest whole number; a larger one is nobody's.
MOST = 2**63 - 1
Id = Annotated[int, Field(ge=1, le=MOST)]
PathId = Path[Id]
