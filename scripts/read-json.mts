import { readFileSync } from 'node:fs';

/** What a command was given, read as JSON; or why it can’t be, in a sentence. */
export function readJson(path: string): { readonly json: unknown } | { readonly problem: string } {
  let text;
  try {
    text = readFileSync(path, 'utf8');
  } catch {
    return { problem: `${path} can’t be read. Check that it is there.` };
  }
  try {
    return { json: JSON.parse(text) as unknown };
  } catch {
    return { problem: `${path} is no JSON. Write it as the schema has it.` };
  }
}
