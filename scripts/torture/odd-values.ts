// Seeded values for requests: mostly what a schema asks for, now and then something nobody would send on purpose.
import type { seeded } from '../../core/photo/seeded';

export type Random = ReturnType<typeof seeded>;
type Schema = Readonly<Record<string, unknown>>;

const NUL = String.fromCharCode(0);
/** Signs, dates and figures at and beyond the edges of what is kept. */
const ODD_TEXTS = [
  '',
  ' ',
  NUL,
  `a${NUL}b`,
  '\uD800',
  '\uDFFF\uD800x',
  '＝1+1',
  '=1+1',
  "'; DROP TABLE lots; --",
  '😀'.repeat(40),
  'é\u0301',
  'x'.repeat(20_000),
  '0000-01-01',
  '9999-12-31',
  '-0001-01-01T00:00:00Z',
  '0000-00-00T00:00:00.000Z',
  '2026-02-30',
  '2026-06-01T25:00:00.000Z',
  '275760-09-13T00:00:00.001Z',
  '00000000-0000-0000-0000-000000000000',
  'null',
  '1e999',
  '٣ g',
  '12 hanks of 1e300 g',
  '0 g',
  '-5 g',
  '../../etc/passwd',
  '%00',
  '<script>alert(1)</script>',
  '\u202Egnp.exe',
  '\r\nSet-Cookie: a=b',
];
const ODD_NUMBERS = [
  0,
  -0,
  -1,
  0.1,
  5e-324,
  -5e-324,
  1e308,
  -1e308,
  2 ** 31 - 1,
  2 ** 31,
  -(2 ** 31) - 1,
  2 ** 53,
  2 ** 53 + 2,
  2 ** 63,
  1e21,
  1e-7,
  32_768,
  65_536,
];

export const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random.uniform() * from.length)] as T;
const chance = (random: Random, share: number): boolean => random.uniform() < share;

function uuid(random: Random): string {
  const hex = Array.from({ length: 32 }, () => Math.floor(random.uniform() * 16).toString(16)).join('');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-7${hex.slice(13, 16)}-a${hex.slice(17, 20)}-${hex.slice(20)}`;
}

export function oddValue(random: Random, depth = 0): unknown {
  const kind = Math.floor(random.uniform() * 8);
  if (kind < 3) return pick(random, ODD_TEXTS);
  if (kind < 5) return pick(random, ODD_NUMBERS);
  if (kind === 5) return pick(random, [null, true, false]);
  if (depth > 3) return [];
  if (kind === 6) return Array.from({ length: Math.floor(random.uniform() * 5) }, () => oddValue(random, depth + 1));
  return { __proto__x: oddValue(random, depth + 1), constructor: 1, id: pick(random, ODD_TEXTS) };
}

/** Something of a schema, with ids that are there now and then, and something odd in `odd` of its places. */
export function valueOf(
  schema: Schema | undefined,
  all: Schema,
  random: Random,
  { ids, odd }: { readonly ids: readonly string[]; readonly odd: number },
  depth = 0,
): unknown {
  const next = (s: Schema | undefined): unknown => valueOf(s, all, random, { ids, odd }, depth + 1);
  if (!schema || depth > 12 || chance(random, odd)) return oddValue(random, depth);
  const { $ref, enum: options, const: fixed, anyOf, oneOf, allOf, type, format, items, properties, required } = schema;
  if (typeof $ref === 'string') return next(all[$ref.split('/').at(-1) ?? ''] as Schema);
  if (fixed !== undefined) return fixed;
  if (Array.isArray(options)) return pick(random, options);
  for (const choices of [anyOf, oneOf]) if (Array.isArray(choices)) return next(pick(random, choices as Schema[]));
  if (Array.isArray(allOf)) return Object.assign({}, ...(allOf as Schema[]).map(next));
  const kind = Array.isArray(type) ? pick(random, type as string[]) : type;
  if (kind === 'null') return null;
  if (kind === 'boolean') return chance(random, 0.5);
  if (kind === 'integer' || kind === 'number') {
    const low = Number(schema['minimum'] ?? schema['exclusiveMinimum'] ?? 0);
    const high = Math.min(Number(schema['maximum'] ?? schema['exclusiveMaximum'] ?? low + 100), low + 10_000);
    const value = low + random.uniform() * (high - low);
    return kind === 'integer' ? Math.round(value) : value;
  }
  if (kind === 'array') {
    const count = Math.floor(random.uniform() * 3) + Number(schema['minItems'] ?? 0);
    return Array.from({ length: Math.min(count, 40) }, () => next(items as Schema));
  }
  if (kind === 'object' || properties) {
    const must = new Set((required as string[] | undefined) ?? []);
    return Object.fromEntries(
      Object.entries((properties as Record<string, Schema> | undefined) ?? {})
        .filter(([key]) => (must.has(key) ? !chance(random, odd / 3) : chance(random, 0.5)))
        .map(([key, own]) => [key, next(own)]),
    );
  }
  if (format === 'uuid') return chance(random, 0.6) && ids.length > 0 ? pick(random, ids) : uuid(random);
  if (format === 'date-time') return new Date(Date.UTC(2026, 5, 1) + random.uniform() * 1e10).toISOString();
  if (format === 'date') return '2026-06-01';
  return pick(random, ['Weld', '12 hanks of 50 g', '5 g', '2026-06-01', 'a note', 'proven', '10:30', '74']);
}
