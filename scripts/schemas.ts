import { mkdirSync, writeFileSync } from "node:fs";
import { record1JsonSchema, recordJsonSchema } from "@/core/record";
import { sheetJsonSchema } from "@/core/sheet";
import { vehicleJsonSchema } from "@/core/vehicle";

/** Writes the published JSON Schemas; a test compares them with the code. */
mkdirSync("public/schemas", { recursive: true });
for (const [name, schema] of [
  ["sheet-2", sheetJsonSchema()],
  ["vehicle-1", vehicleJsonSchema()],
  ["record-1", record1JsonSchema()],
  ["record-2", recordJsonSchema()],
] as const)
  writeFileSync(`public/schemas/${name}.json`, `${JSON.stringify(schema, null, 2)}\n`);
