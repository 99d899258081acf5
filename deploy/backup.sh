#!/bin/sh
# One backup of the database: deploy/backup.sh FILE. Where from, in libpq's own variables:
# PGHOST, PGPORT, PGUSER (evencoil_backup), PGPASSWORD or ~/.pgpass, PGDATABASE.
# Written beside and put in place only when it is whole and can be listed.
set -eu
file=${1:?"usage: deploy/backup.sh FILE"}
umask 077
trap 'rm -f "$file.part"' EXIT
pg_dump --format=custom --no-owner --no-privileges --file="$file.part"
pg_restore --list "$file.part" >/dev/null
mv "$file.part" "$file"
