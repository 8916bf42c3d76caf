import { mkdirSync, writeFileSync } from "node:fs";
import { record1JsonSchema, recordJsonSchema } from "@/core/record";
import { sheetJsonSchema } from "@/core/sheet";
import { vehicleJsonSchema } from "@/core/vehicle";
import { EXAMPLES } from "@/demo/data/examples";

/** Writes the published JSON Schemas; a test compares them with the code. */
mkdirSync("public/schemas", { recursive: true });
for (const [name, schema] of [
  ["sheet-2", sheetJsonSchema()],
  ["vehicle-1", vehicleJsonSchema()],
  ["record-1", record1JsonSchema()],
  ["record-2", recordJsonSchema()],
] as const)
  writeFileSync(`public/schemas/${name}.json`, `${JSON.stringify(schema, null, 2)}\n`);

/** The files a new shop can begin with. */
mkdirSync("public/examples", { recursive: true });
for (const [name, doc] of Object.entries(EXAMPLES))
  writeFileSync(`public/examples/${name}.json`, `${JSON.stringify(doc, null, 2)}\n`);
