#!/usr/bin/env python3
"""validate_schemas.py SOURCE TAKEOFF: the example job and its plan against the schemas in docs/formats, and a few
broken ones that the schemas must refuse."""
import copy, json, os, subprocess, sys
import jsonschema

source, takeoff = sys.argv[1:3]
def load(*parts):
    with open(os.path.join(source, *parts), encoding="utf-8") as f:
        return json.load(f)

job_schema = load("docs", "formats", "job.schema.json")
plan_schema = load("docs", "formats", "plan.schema.json")
for schema in (job_schema, plan_schema):
    jsonschema.Draft7Validator.check_schema(schema)
for name in (("data", "plover.westrum"), ("data", "starter.westrum"), ("tests", "data", "plover-version-1.westrum")):
    jsonschema.validate(load(*name), job_schema)
plan = json.loads(subprocess.run([takeoff, "--json", os.path.join(source, "data", "plover.westrum")],
                                 capture_output=True).stdout)
jsonschema.validate(plan, plan_schema)

def refuses(document, schema, change):
    broken = copy.deepcopy(document)
    change(broken)
    try:
        jsonschema.validate(broken, schema)
    except jsonschema.ValidationError:
        return
    sys.exit("a schema accepts a broken document")

job = load("data", "plover.westrum")
refuses(job, job_schema, lambda j: j.update(version="1"))
refuses(job, job_schema, lambda j: j.pop("name"))
refuses(job, job_schema, lambda j: j["surfaces"][0].update(kind="attic"))
refuses(job, job_schema, lambda j: j["surfaces"][1]["openings"][0].update(shape="star"))
refuses(job, job_schema, lambda j: j["surfaces"][1]["edges"][0].update(kind="touches"))
refuses(job, job_schema, lambda j: j["surfaces"][0]["measurement"]["readings"]["AB"].pop("mm"))
refuses(plan, plan_schema, lambda p: p["surfaces"][0]["layers"][-1]["setOut"]["pieces"][0].pop("outline"))
refuses(plan, plan_schema, lambda p: p["totals"].update(laidM2="6"))
print("schemas hold")
