import type { MaterialForm } from '../stock/material-facts';
import type { CheckInput } from './check-input';
import type { Found } from './finding';
import { caution } from './finding';

/** Dyestuff older than this is cautioned about, days. */
export const OLD_DAYS = 3 * 365;

/** Milliseconds in a day. */
export const DAY_MS = 86_400_000;

/** Whether stock lots are old, of another form, or an untested mix. */
export function stockChecks({ plan, stockLots, materials, recipe, today }: CheckInput): Found[] {
  return plan.materials.flatMap((planned) => {
    const picked = planned.picks.flatMap((p) => stockLots.filter((j) => j.id === p.stockLotId));
    const isDye = materials.find((m) => m.id === planned.materialId)?.kind === 'dyestuff';
    const found: Found[] = [];
    for (const stockLot of picked) {
      const days = Math.floor((Date.parse(today) - Date.parse(stockLot.receivedOn)) / DAY_MS);
      if (isDye && days > OLD_DAYS)
        found.push(
          caution(
            'age',
            `${stockLot.tag} is ${Math.floor(days / 365)} years old.`,
            'Dyestuff weakens in the jar: dye a strip first.',
            `the label of ${stockLot.tag}`,
          ),
        );
      const meant = recipe.steps
        .flatMap((s) => s.doses)
        .find((d) => d.materialId === planned.materialId && d.by === 'percentOwf') as
        { form?: MaterialForm | null } | undefined;
      if (meant?.form && stockLot.form && stockLot.form !== meant.form)
        found.push(
          caution(
            'form',
            `${stockLot.tag} is ${stockLot.form}; the recipe means ${meant.form}.`,
            'Its dose was converted; hue may still differ. Dye a strip first.',
            `the label of ${stockLot.tag}`,
          ),
        );
    }
    if (isDye && picked.length > 1 && picked.some((j) => j.strengthPercent === null))
      found.push(
        caution(
          'untestedMix',
          `${planned.name} comes from ${picked.map((j) => j.tag).join(' and ')}, and not all of them were tested.`,
          'Two harvests differ: every batch gets the same mix, but the shade may move. Dye a strike-off.',
          picked.map((j) => `the label of ${j.tag}`).join(', '),
        ),
      );
    return found;
  });
}
