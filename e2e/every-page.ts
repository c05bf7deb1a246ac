import type { LotSummary } from '@vestigia/contract';
import type { Someone } from './person';

/** The pages that need no thing of the studio’s. */
const PLACES = [
  'today',
  'stores',
  'recipes',
  'colourways',
  'lots',
  'bench',
  'judge',
  'judge/book',
  'judge/palette',
  'judge/fastness',
  'judge/reach',
  'judge/foretold',
  'judge/readers',
  'plan',
  'plan/times',
  'orders',
  'orders/new',
  'orders/goods',
  'orders/customers',
  'studio',
  'lots/new',
  'lots/first',
  'stores/delivery',
  'stores/material',
  'stores/ahead',
  'stores/gathered',
  'stores/count',
  'stores/convert',
  'stores/liquor',
  'stores/files',
  'stores/materials',
  'stores/worth',
  'recipes/write',
  'recipes/strips',
  'recipes/strips/new',
  'recipes/take-in',
  'studio/practice',
  'studio/deeds',
  'colourways/new',
  'bench/instruments',
  'bench/tags',
  'scan',
  'wall',
];

/** The address of every page there is, each of those that show one thing with a thing of the demo studio’s. */
export async function everyPage(someone: Someone): Promise<string[]> {
  const lots = await someone.ask<LotSummary[]>('/api/lots');
  const released = lots.find((l) => l.state === 'released' && l.reorderOf) as LotSummary;
  const jars = await someone.ask<{ id: string; tag: string }[]>('/api/stores');
  const jar = (tag: string): string | undefined => jars.find((j) => j.tag === tag)?.id;
  const materials = await someone.ask<{ id: string; name: string; kind: string }[]>('/api/materials');
  const alum = materials.find((m) => m.name === 'Potassium alum')?.id;
  const fibre = materials.find((m) => m.kind === 'fibre')?.id;
  const recipes = await someone.ask<{ name: string; versions: { id: string }[] }[]>('/api/recipes');
  const version = (name: string, n = 0): string => recipes.find((r) => r.name === name)?.versions[n]?.id ?? '';
  const [chain, placed] = [version('One weld pot, three fibres'), version('Tide-line ribbon')];
  const trial = (await someone.ask<{ id: string }[]>('/api/strip-trials'))[0]?.id;
  const saltings = (await someone.ask<{ id: string; name: string }[]>('/api/colourways')).find(
    (c) => c.name === 'Saltings',
  )?.id;
  const [order] = await someone.ask<{ id: string; customer: { id: string } }[]>('/api/orders');
  return [
    ...PLACES,
    `orders/${order?.id}`,
    `orders/${order?.id}/edit`,
    `orders/customers/${order?.customer.id}`,
    `lots/${released.id}`,
    `lots/new?again=${released.id}`,
    `judge/${lots.find((l) => l.state === 'toJudge')?.id}`,
    `bench/${lots.find((l) => l.state === 'inWork')?.id}`,
    `bench/card/${lots.find((l) => l.state === 'inWork')?.id}`,
    `judge/${released.id}`,
    `stores/${jars[0]?.id}`,
    `stores/${jar('ALB-1')}`,
    `stores/${jar('VAT-1')}`,
    `stores/materials/${alum}`,
    `stores/materials/${fibre}`,
    `recipes/${chain}`,
    `recipes/${placed}`,
    `recipes/${placed}/placed`,
    `recipes/${chain}/sheet`,
    `recipes/${version('Weld on alum', 1)}/compare?with=${version('Weld on alum')}`,
    `recipes/write?from=${placed}`,
    `recipes/strips/${trial}`,
    `lots/new?colourway=${saltings}`,
    `colourways/${released.colourway.id}`,
  ];
}
