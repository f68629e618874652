"""The plan's JSON Schema, published at an address of its own."""

import json

from django.http import HttpRequest, HttpResponse

from bridle.core.plan.document import VERSION, Plan

ADDRESS = f"schema/plan-{VERSION}.json"


def schema_text() -> str:
    """The schema as text, the same for the same plan version."""
    schema = Plan.model_json_schema(mode="serialization")
    head = {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": f"Bridle plan, version {VERSION}",
    }
    return json.dumps({**schema, **head}, indent=2, ensure_ascii=False) + "\n"


def plan_schema(request: HttpRequest) -> HttpResponse:
    """The schema as a file."""
    return HttpResponse(schema_text(), content_type="application/schema+json")
