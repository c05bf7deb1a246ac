import type { StudioFile } from '@vestigia/contract';
import type { Teller } from './recipe-book';
import { recipeBook } from './recipe-book';
import { addSecondUses } from './second-uses';
import { addStrips } from './strips-history';
import { addThreeFibres } from './three-fibres';
import { addTideLineRibbon } from './tide-line-ribbon';
import { addWeldAtTheProof } from './weld-at-the-proof';

/**
 * What the house has in hand beside its proven ten: a version at the proof, chains that branch, placed colour,
 * strips.
 */
export function addRecipesHistory(doc: StudioFile, teller: Teller): void {
  const weld = doc.recipes.find((r) => r.name === 'Weld on alum');
  const first = doc.recipeVersions.find((v) => v.recipeId === weld?.id);
  const book = recipeBook(doc, teller);
  if (!weld || !first) throw new Error('the house is not furnished');
  addWeldAtTheProof(doc, teller, book, weld, first);
  addThreeFibres(teller, book);
  addTideLineRibbon(doc, teller, book);
  addSecondUses(doc, teller, book);
}

/** Strips are dyed from what stands on the shelf at the end. */
export function addStripsHistory(doc: StudioFile, teller: Teller): void {
  const { materialId } = teller;
  const weld = doc.recipes.find((r) => r.name === 'Weld on alum');
  const first = doc.recipeVersions.find((v) => v.recipeId === weld?.id);
  const [, second] = doc.people;
  if (!weld || !first || !second) throw new Error('the house is not furnished');
  addStrips(doc, teller, {
    recipeVersionId: first.id,
    recipeName: weld.name,
    body: first.body,
    byId: second.id,
    weldId: materialId('Weld, dried tops'),
    baseId: materialId('Rug wool'),
  });
}
