import type { LotPlan } from '../scaling/lot-plan';

const LETTERS = 26;
const FIRST = 65;

/** A, B, … Z, AA, AB …: the how manieth name, from 0. */
function letterOf(n: number): string {
  const last = String.fromCharCode(FIRST + (n % LETTERS));
  return n < LETTERS ? last : `${letterOf(Math.floor(n / LETTERS) - 1)}${last}`;
}

/** What a material of a lot is called before those to whom its recipe isn't shown. */
export interface CodeName {
  readonly materialId: string;
  readonly name: string;
  readonly code: string;
}

/** Code names for everything in a lot but its fibre, in the order in which it is used. */
export const codeNames = (plan: Pick<LotPlan, 'materials'>): CodeName[] =>
  plan.materials
    .filter((m) => m.kind !== 'fibre' && m.ownGoods !== true)
    .map(({ materialId, name }, n) => ({ materialId, name, code: letterOf(n) }));

const SHORTEST_ALIAS = 4;

/** A material's names in a text: in full, and as people shorten it, up to a comma or a bracket. */
export function namesOf({ name, code }: CodeName): (readonly [name: string, code: string])[] {
  const short = name.split(/[,(]/)[0]?.trim() ?? '';
  return short.length >= SHORTEST_ALIAS && short !== name
    ? [
        [name, code],
        [short, code],
      ]
    : [[name, code]];
}

/** A jar that a lot may be weighed from; of a stock solution, what is dissolved in it. */
interface CodedJar {
  readonly id: string;
  readonly materialId: string;
  readonly solutionOf?: { readonly materialId: string } | null | undefined;
}

/**
 * Code names of jars: their material's letter and a number. Numbered by their ids, which rise with time, so that a jar
 * that comes later takes no other's name.
 */
export function jarCodes(jars: readonly CodedJar[], codes: readonly CodeName[]): Map<string, string> {
  const counted = new Map<string, number>();
  const inOrder = [...jars].sort((a, b) => (a.id < b.id ? -1 : 1));
  return new Map(
    inOrder.flatMap(({ id, materialId, solutionOf }) => {
      const code = codes.find((c) => c.materialId === (solutionOf?.materialId ?? materialId))?.code;
      if (code === undefined) return [];
      const n = (counted.get(code) ?? 0) + 1;
      counted.set(code, n);
      return [[id, `${code}${n}`] as const];
    }),
  );
}

const SPECIAL = /[.*+?^${}()|[\]\\]/g;

/**
 * Puts code names in the place of names, wherever a text has them as words, longest first, however they are written.
 */
export function withCodeNames(text: string, names: readonly (readonly [name: string, code: string])[]): string {
  const known = [...names].filter(([name]) => name.trim() !== '').sort(([a], [b]) => b.length - a.length);
  if (known.length === 0) return text;
  const codeOf = new Map(known.map(([name, code]) => [name.toLowerCase(), code]));
  const pattern = new RegExp(
    `(?<![\\p{L}\\p{N}])(?:${known.map(([name]) => name.replace(SPECIAL, '\\$&')).join('|')})(?![\\p{L}\\p{N}])`,
    'giu',
  );
  return text.replace(pattern, (found) => codeOf.get(found.toLowerCase()) ?? found);
}
