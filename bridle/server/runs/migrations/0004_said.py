"""Why a frame did not come, beside its event."""

from typing import ClassVar

from django.db import migrations, models


class Migration(migrations.Migration):
    """One more column; nothing was said before."""

    dependencies: ClassVar = [("runs", "0003_weather")]
    operations: ClassVar = [
        migrations.AddField("runevent", "said", models.CharField(blank=True, default="", max_length=160)),
    ]
