from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ("people", "0005_trade_names"),
    ]

    operations = [
        migrations.AddField(
            "works",
            "phase_colors",
            models.CharField(default="plain", max_length=24),
        ),
    ]
