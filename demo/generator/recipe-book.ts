import type { StudioFile } from '@vestigia/contract';
import type { Lab } from '@vestigia/core';
import type { Random } from './random';

export type Body = StudioFile['recipeVersions'][number]['body'];
export type Step = Body['steps'][number];
export interface Teller {
  readonly random: Random;
  readonly endMs: number;
  readonly materialIds: Map<string, string>;
  materialId(name: string): string;
}

export const DAY_MS = 86_400_000;
export const D65 = { illuminant: 'D65' as const, observer: '10' as const };
export const OVERNIGHT_MIN = 720;
export const iso = (ms: number): string => new Date(ms).toISOString();
export const step = (
  key: string,
  kind: Step['kind'],
  title: string,
  instruction: string,
  rest: Partial<Step> = {},
): Step => ({
  key,
  kind,
  title,
  instruction,
  durationMin: 60,
  attended: false,
  lookFor: '',
  usesBath: false,
  doses: [],
  ...rest,
});

/** Writes recipes, versions and colourways into the studio file as the second person of the house. */
export function recipeBook(doc: StudioFile, { random, endMs, materialId }: Teller) {
  const [, second] = doc.people;
  if (!second) throw new Error('the house is not furnished');
  const of = (name: string, percentOwf: number, form?: 'dried' | 'ground') => ({
    materialId: materialId(name),
    by: 'percentOwf' as const,
    percentOwf,
    ...(form ? { form } : {}),
  });
  const version = (
    recipeId: string,
    number: number,
    body: Body,
    daysBefore: number,
    status: 'trial' | 'proof' = 'trial',
    reason = '',
  ): string => {
    const atMs = endMs - daysBefore * DAY_MS;
    const id = random.id(atMs);
    doc.recipeVersions.push({ id, recipeId, number, body, byId: second.id, at: iso(atMs) });
    doc.recipeStatuses.push({
      id: random.id(atMs),
      recipeVersionId: id,
      status: 'trial',
      reason: '',
      byId: second.id,
      at: iso(atMs),
    });
    if (status === 'proof')
      doc.recipeStatuses.push({
        id: random.id(atMs),
        recipeVersionId: id,
        status,
        reason,
        byId: second.id,
        at: iso(atMs + 2 * DAY_MS),
      });
    return id;
  };
  const recipe = (name: string, body: Body, daysBefore: number): string => {
    const id = random.id(endMs - daysBefore * DAY_MS);
    doc.recipes.push({ id, name });
    return version(id, 1, body, daysBefore);
  };
  const colourway = (name: string, recipeVersionId: string, base: string, master: Lab, note: string): void => {
    doc.colourways.push({
      id: random.id(endMs - 30 * DAY_MS),
      name,
      recipeVersionId,
      baseMaterialId: materialId(base),
      master: { ...master, ...D65 },
      toleranceDeltaE: 2.5,
      note,
    });
  };
  return { of, version, recipe, colourway, byId: second.id };
}
export type RecipeBook = ReturnType<typeof recipeBook>;
