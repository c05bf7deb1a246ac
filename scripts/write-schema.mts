// Writes the JSON Schemas of the stores file, the recipe file and what the commands take and answer, as the contract has it: npm run schema
import '@angular/localize/init';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { measureSchemas, planSchemas, recipeFileSchema, storesSchema } from '../contract/index';

for (const [name, schema] of [
  ['stores', storesSchema()],
  ['recipe', recipeFileSchema()],
  ...Object.entries(measureSchemas()),
  ...Object.entries(planSchemas()),
] as const)
  writeFileSync(join(import.meta.dirname, '..', 'docs', `${name}.schema.json`), `${JSON.stringify(schema, null, 1)}\n`);
