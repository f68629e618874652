"""The plan's JSON Schema, as it is written to its file."""

import json

from bridle.core.plan.document import VERSION, Plan


def schema_text() -> str:
    """The schema as text, the same for the same plan version."""
    schema = Plan.model_json_schema(mode="serialization")
    head = {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": f"Bridle plan, version {VERSION}",
    }
    return json.dumps({**schema, **head}, indent=2, ensure_ascii=False) + "\n"
