"""The drives as the shelf offers them: their names, and what is on their cards. The page ships with them."""

import json
from typing import get_args

from bridle.core.subjects.motion.drives.every import AnyDrive


def drives_text() -> str:
    """The drives in their order, as JSON by kind."""
    entries = {
        drive.model_fields["kind"].default: {
            "name": drive.SHELF,
            "minds": list(drive.MINDS),
            "fields": [field._asdict() for field in drive.FIELDS],
            "tables": [
                {**table._asdict(), "columns": [column._asdict() for column in table.columns]} for table in drive.TABLES
            ],
        }
        for drive in get_args(AnyDrive)
    }
    return json.dumps(entries, ensure_ascii=False, indent=1) + "\n"
