#!/bin/sh
# A backup into a new, empty database: deploy/restore.sh FILE DATABASE.
# As PGUSER, who may make databases; the tables belong to that role or to EVENCOIL_OWNER.
# Refuses a database that is there: nothing is written over.
set -eu
file=${1:?"usage: deploy/restore.sh FILE DATABASE"}
database=${2:?"usage: deploy/restore.sh FILE DATABASE"}
pg_restore --list "$file" >/dev/null
createdb --template=template0 "$database"
pg_restore --dbname="$database" --no-owner --exit-on-error --single-transaction \
  ${EVENCOIL_OWNER:+--role="$EVENCOIL_OWNER"} "$file"
