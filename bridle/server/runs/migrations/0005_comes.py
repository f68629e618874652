"""Whether somebody comes to a run of months as it is planned."""

from typing import ClassVar

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies: ClassVar = [("runs", "0004_said")]
    operations: ClassVar = [
        migrations.AddField("run", "comes", models.BooleanField(default=True)),
    ]
