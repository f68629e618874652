"""Write the API's description, drives, formats, the plan's schema and the snags to the files that are committed."""

import json
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand

from bridle.core.plan.document import VERSION
from bridle.formats.snag_list import snag_list
from bridle.server.api import api
from bridle.server.kit.drives import drives_text
from bridle.server.schema import schema_text
from bridle.server.shoots.files import formats_text


class Command(BaseCommand):
    """The page is made with the first two; the others are documentation."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Write them all."""
        root = Path(settings.ROOT)
        described = json.dumps(api.get_openapi_schema(path_prefix="/api/"), indent=1, ensure_ascii=False)
        (root / "frontend/src/api/openapi.json").write_text(described + "\n", encoding="utf-8")
        (root / "frontend/src/api/drives.json").write_text(drives_text(), encoding="utf-8")
        (root / "frontend/src/api/formats.json").write_text(formats_text(), encoding="utf-8")
        (root / "docs/snags.md").write_text(snag_list(), encoding="utf-8")
        (root / f"docs/formats/plan-{VERSION}.schema.json").write_text(schema_text(), encoding="utf-8")
