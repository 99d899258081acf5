from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("proving", "0001_initial")]
    operations = [migrations.DeleteModel(name="ProofRun")]
