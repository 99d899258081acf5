from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ("people", "0006_phase_colors"),
    ]

    operations = [
        migrations.AddField(
            "works",
            "device_names",
            models.CharField(default="iec", max_length=8),
        ),
        migrations.AddField(
            "works",
            "trade_terms",
            models.CharField(default="american", max_length=12),
        ),
        migrations.AddField(
            "works",
            "line_names",
            models.CharField(default="L1-L2-L3", max_length=12),
        ),
    ]
