"""What was done at a visit is kept a line each: until now commas parted it, and stand in the names of things to do."""

from django.apps.registry import Apps
from django.db import migrations
from django.db.backends.base.schema import BaseDatabaseSchemaEditor


def a_line_each(apps: Apps, schema_editor: BaseDatabaseSchemaEditor) -> None:
    events = apps.get_model("runs", "RunEvent")
    for row in events.objects.filter(kind="visit", said__contains=", "):
        row.said = row.said.replace(", ", "\n")
        row.save(update_fields=["said"])


class Migration(migrations.Migration):

    dependencies = [("runs", "0006_running_time")]

    operations = [migrations.RunPython(a_line_each, migrations.RunPython.noop)]
