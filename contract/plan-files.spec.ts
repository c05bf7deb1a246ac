import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { planSchemas } from './index';

describe('the published form of a plan problem and its answer', () => {
  it.each(Object.entries(planSchemas()))('%s is what the contract says, to the letter', (name, schema) =>
    expect(JSON.parse(readFileSync(join(import.meta.dirname, '..', 'docs', `${name}.schema.json`), 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(schema)),
    ),
  );
});
