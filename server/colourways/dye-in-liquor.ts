import type { DyeInLiquor, Liquor } from '@vestigia/contract';
import { recipeBody } from '@vestigia/contract';
import { VAT_FACTS } from '@vestigia/core';
import type { Db } from '../db/database';
import { Refusal } from '../shared/problem';
import type { By } from '../shared/recorded-by';
import { addRecipe } from '../recipes/write-versions';
import { findLiquor } from '../stores/liquor-level';
import { findMaterial } from '../stores/materials-store';
import { findStockLot } from '../stores/stock-lot-store';
import { addColourway, baseFacts } from './colourways-store';

const USUAL_RATIO = 30;
const TOLERANCE_DELTA_E = 2;

/**
 * Pieces put into a liquor that stands: a recipe whose bath it is, all of it, and a colourway that waits for what comes
 * out. The lot itself is then proposed and agreed to as any other.
 */
export async function dyeInLiquor(db: Db, stockLotId: string, asked: DyeInLiquor, by: By): Promise<{ id: string }> {
  const jar = await findStockLot(db, stockLotId);
  const liquor = await findLiquor(db, stockLotId);
  if (!liquor)
    throw new Refusal(
      'refused',
      $localize`${jar.tag} is not a kept liquor, so nothing can be dyed in it as it stands.`,
    );
  if (jar.onHand <= 0)
    throw new Refusal('refused', $localize`Nothing is left of ${jar.tag}.`, { reason: 'nothingLeft' });
  const base = await findMaterial(db, asked.baseMaterialId);
  const body = recipeBody.parse({
    fibres: [baseFacts(base).fibre],
    liquorRatio: USUAL_RATIO,
    allowedMetals: ['stainless', 'enamel', 'glass', 'plastic'],
    note: $localize`In ${jar.tag}, as it stood.`,
    ...(liquor.vat ? { practice: { vatKind: liquor.vat.kind } } : {}),
    steps: [
      step($localize`wet out`, 'wetOut', $localize`Wet out`, 60),
      { ...step('dye', 'dye', $localize`Dye in ${jar.tag}`, asked.minutes), ...inIt(jar.material.id, liquor, asked) },
      { ...step('rinse', 'rinse', $localize`Rinse`, 20), attended: true },
      step('dry', 'dry', $localize`Dry`, 1440),
    ],
  });
  await addRecipe(db, { id: asked.recipeId, name: asked.name, versionId: asked.versionId, body }, by);
  await addColourway(db, {
    id: asked.id,
    name: asked.name,
    recipeVersionId: asked.versionId,
    baseMaterialId: asked.baseMaterialId,
    master: null,
    toleranceDeltaE: TOLERANCE_DELTA_E,
    formula: 'de00',
    note: '',
  });
  return { id: asked.id };
}

const step = (key: string, kind: string, title: string, durationMin: number) => ({
  key,
  kind,
  title,
  instruction: '',
  durationMin,
  attended: false,
  lookFor: '',
  usesBath: false,
  doses: [],
});

/** All of the liquor is the bath; in a vat pieces are dipped and aired, at the warmth it works at. */
function inIt(materialId: string, { vat }: Liquor, { temperatureC, minutes, dips, airMinutes }: DyeInLiquor): object {
  const bath = { usesBath: true, doses: [{ materialId, by: 'allThere' }] };
  if (!vat) return { ...bath, ...(temperatureC === null ? {} : { temperatureC }) };
  const toC = temperatureC ?? Math.round((VAT_FACTS[vat.kind].lowC + VAT_FACTS[vat.kind].highC) / 2);
  return {
    ...bath,
    attended: true,
    repeats: dips,
    course: [
      { do: 'hold', toC, minutes },
      { do: 'air', minutes: airMinutes },
    ],
  };
}
