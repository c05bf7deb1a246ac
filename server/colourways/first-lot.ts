import type { Material, ReadFirstLot } from '@vestigia/contract';
import { newMaterial, NO_STOCK_FACTS, recipeBody } from '@vestigia/contract';
import { said, catalogueEntry, factsOf, starterNeeds, startersFor, starterRecipe } from '@vestigia/core';
import type { Db } from '../db/database';
import { vessels } from '../db/schema';
import { addRecipe } from '../recipes/write-versions';
import { uuidv7 } from '../shared/ids';
import { Refusal } from '../shared/problem';
import type { By } from '../shared/recorded-by';
import { receive } from '../stores/book-in';
import { addMaterial, findMaterial, listMaterials } from '../stores/materials-store';
import { studioToday } from '../studio/studio-store';
import { addColourway, baseFacts } from './colourways-store';

const TOLERANCE_DELTA_E = 2;
/** Undyed fibre as it usually is, until somebody reads it. */
const USUAL_UNDYED = { L: 86, a: 0, b: 9, illuminant: 'D65', observer: '10' } as const;

/**
 * Sets up what a first lot needs, in one go: a pot, the cloth, the catalogue's materials and what there is of them, a
 * starter recipe, and a colourway that waits for what comes out. What the studio has already is used. The lot itself is
 * then proposed and agreed to as any other.
 */
export async function setUpFirstLot(db: Db, asked: ReadFirstLot, by: By): Promise<{ id: string }> {
  const { id, name, starter, dyestuffKey } = asked;
  const dyestuff = catalogueEntry(dyestuffKey);
  if (dyestuff?.kind !== 'dyestuff')
    throw new Refusal('refused', $localize`That dyestuff is not in the catalogue. Choose one from the list.`);
  const base = await theBase(db, asked, by);
  const { fibre } = baseFacts(base);
  if (!startersFor(fibre, dyestuff).includes(starter))
    throw new Refusal(
      'refused',
      dyestuff.needs === 'vat'
        ? $localize`${dyestuff.name} dyes from a vat. Set one up in Stores as a kept liquor, then dye in it.`
        : $localize`That way of dyeing doesn’t suit ${said(fibre)} with ${dyestuff.name.toLowerCase()}. Choose one of those offered.`,
      { reason: 'notSuited' },
    );
  await addPot(db, asked, by);
  const known = new Map((await listMaterials(db)).map((m) => [m.facts.catalogueKey, m.id]));
  for (const { key } of starterNeeds(starter, dyestuffKey))
    if (!known.has(key)) known.set(key, await addFromCatalogue(db, key, by));
  const idOf = (key: string): string => known.get(key) ?? '';
  for (const { key, ...there } of asked.onHand)
    if (there.quantityText.trim() !== '') await bookIn(db, key === '' ? base.id : idOf(key), there, by);
  const recipe = starterRecipe(starter, fibre, dyestuff, idOf);
  const [recipeId, versionId] = [uuidv7(by.now), uuidv7(by.now)];
  const body = recipeBody.parse({ ...recipe, note: $localize`A first recipe: general practice, to be tried small.` });
  await addRecipe(db, { id: recipeId, name, versionId, body }, by);
  await addColourway(db, {
    id,
    name,
    recipeVersionId: versionId,
    baseMaterialId: base.id,
    master: null,
    toleranceDeltaE: TOLERANCE_DELTA_E,
    formula: 'de00',
    note: '',
  });
  return { id };
}

async function theBase(db: Db, { base }: ReadFirstLot, by: By): Promise<Material> {
  if ('materialId' in base) return findMaterial(db, base.materialId);
  const { name, ...facts } = base;
  const material = newMaterial.parse({
    id: uuidv7(by.now),
    name,
    kind: 'fibre',
    measure: 'weight',
    hazards: [],
    note: '',
    base: { ...facts, undyed: USUAL_UNDYED },
  });
  await addMaterial(db, material);
  return findMaterial(db, material.id);
}

async function addPot(db: Db, { pot }: ReadFirstLot, by: By): Promise<void> {
  if (!pot) return;
  const { name, metal, litres } = pot;
  await db.insert(vessels).values({ id: uuidv7(by.now), name, metal, workingMl: litres * 1000, note: '' });
}

async function addFromCatalogue(db: Db, key: string, by: By): Promise<string> {
  const entry = catalogueEntry(key);
  if (!entry) throw new Refusal('refused', $localize`That material is not in the catalogue. Choose one from the list.`);
  const { name, kind, measure, hazards, note } = entry;
  const id = uuidv7(by.now);
  const given = { id, name, kind, measure, hazards: [...hazards], note, base: null, facts: factsOf(entry) };
  await addMaterial(db, newMaterial.parse(given));
  return id;
}

async function bookIn(
  db: Db,
  materialId: string,
  { quantityText, guessed }: Omit<ReadFirstLot['onHand'][number], 'key'>,
  by: By,
): Promise<void> {
  await receive(
    db,
    {
      id: uuidv7(by.now),
      movementId: uuidv7(by.now),
      materialId,
      tag: '',
      quantityText,
      grossText: '',
      tareText: '',
      receivedOn: await studioToday(db, by.now),
      bestBefore: null,
      place: '',
      source: $localize`on the shelf at the beginning`,
      note: guessed ? $localize`Not weighed: taken as enough for a first lot. Count it when you can.` : '',
      picking: null,
      cost: '',
      facts: NO_STOCK_FACTS,
    },
    by,
  );
}
