from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("runs", "0002_outlives_its_shoot")]

    operations = [
        migrations.AddField(
            model_name="run", name="weather", field=models.CharField(default="as planned", max_length=20)
        ),
    ]
