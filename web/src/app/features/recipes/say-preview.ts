import type { ListedMaterial, RecipeBody, Studio } from '@vestigia/contract';
import { figuresShownIn, previewDoses } from '@vestigia/core';
import type { ContextNote } from '../../services/context-panel';

const KILO = { wofG: 1000, pieces: 10, title: $localize`For 1 kg, ten hanks of 100 g` };
const POUND = { wofG: 453.59237, pieces: 4, title: $localize`For 1 lb, four hanks of 4 oz` };

/** What a kilo or a pound of fibre would need of a recipe: a line a step that takes anything. */
export function sayPreview(
  body: RecipeBody,
  materials: readonly ListedMaterial[],
  { balanceName, balanceResolutionG, balanceCapacityG, fineBalance }: Studio,
): ContextNote[] {
  const fibre = figuresShownIn().weight === 'pounds' ? POUND : KILO;
  const byId = new Map(materials.map((m) => [m.id, m]));
  const steps = previewDoses(
    body,
    (id) => {
      const m = byId.get(id);
      return (
        m && {
          name: m.name,
          measure: m.measure,
          catalogueKey: m.facts.catalogueKey,
          packet: m.facts.packet,
          spoons: [],
        }
      );
    },
    fibre,
    { name: balanceName, resolutionG: balanceResolutionG, capacityG: balanceCapacityG, fine: fineBalance },
  );
  const lines = steps
    .map(({ title, liquor, doses }) => ({
      title,
      needs: [
        ...doses.map((d) => `${d.name} ${together(d.amount)}`),
        ...(liquor === undefined ? [] : [$localize`${together(liquor)} of liquor`]),
      ],
    }))
    .filter(({ needs }) => needs.length > 0)
    .map(({ title, needs }) => `${title}: ${needs.join(', ')}.`);
  return lines.length === 0 ? [] : [{ title: fibre.title, lines }];
}

/** A number isn’t parted from its unit at the end of a line. */
const together = (text: string): string => text.replace(/(?<=\d) (?=\S{1,2}\b)/g, '\u00a0');
