# The same steps by hand and before a commit.
.PHONY: lint types test e2e api format shots
lint: ; ./check lint
types: ; ./check types
test: ; ./check core web server
e2e: ; ./check e2e
format: ; .venv/bin/ruff format . && .venv/bin/ruff check --fix . ; cd web && npx biome check --write .
api:
	EVENCOIL_SECRET_KEY=api .venv/bin/python server/manage.py export_openapi_schema --api config.urls.api --output server/api/openapi.json --indent 1 --sorted
	cd web && npm run types --silent
	.venv/bin/python -m evencoil schema > docs/job.schema.json
