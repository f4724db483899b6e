// Writes the JSON Schema of the job file, as it is published with the program.
import { mkdirSync, writeFileSync } from "node:fs";
import { jobFileJsonSchema } from "../../src/formats/jobFile";

mkdirSync("public/schema", { recursive: true });
writeFileSync("public/schema/job-file.schema.json", `${JSON.stringify(jobFileJsonSchema(), null, 2)}\n`);
