import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';

const APP = join(import.meta.dirname, '..');

// Without the directive the attribute says nothing: what is typed would go on as text, and no unit be read.
it('every template with a number field has the directive that reads it', () => {
  const files = readdirSync(APP, { recursive: true, encoding: 'utf8' });
  const templates = files.filter((f) => f.endsWith('.html') || (f.endsWith('.ts') && !f.endsWith('.spec.ts')));
  const using = templates.filter((f) => /<input[^>]*\bvsNumber\b/s.test(readFileSync(join(APP, f), 'utf8')));
  const classes = using.map((f) => f.replace(/\.html$/, '.ts')).filter((f) => existsSync(join(APP, f)));
  expect(using.length).toBeGreaterThan(10);
  expect(classes.length).toBe(using.length);
  expect(classes.filter((f) => !/imports: \[[^\]]*\bNumberField\b/s.test(readFileSync(join(APP, f), 'utf8')))).toEqual(
    [],
  );
});
