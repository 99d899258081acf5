from django.db import migrations, models

RULES = {"exam": "main_rule", "field": "next_size_up"}


def rename(apps, rules):
    """Store the rating rule of every plant under its new name."""
    works = apps.get_model("people", "Works")
    for old, new in rules.items():
        works.objects.filter(rating_rule=old).update(rating_rule=new)


def forward(apps, schema_editor):
    rename(apps, RULES)


def back(apps, schema_editor):
    rename(apps, {new: old for old, new in RULES.items()})


class Migration(migrations.Migration):

    dependencies = [
        ("people", "0004_wires"),
    ]

    operations = [
        migrations.RenameField("works", "school", "rating_rule"),
        migrations.RenameField("works", "school_reason", "rating_rule_reason"),
        migrations.RenameField("works", "wire_colours", "wire_colors"),
        migrations.AlterField(
            "works",
            "rating_rule",
            models.CharField(default="next_size_up", max_length=16),
        ),
        migrations.RunPython(forward, back),
    ]
