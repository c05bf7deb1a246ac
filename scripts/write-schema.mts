// Writes the JSON Schema of the stores file as the contract has it: npm run schema
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { storesSchema } from '../contract/index';

writeFileSync(join(import.meta.dirname, '..', 'docs', 'stores.schema.json'), `${JSON.stringify(storesSchema(), null, 1)}\n`);
