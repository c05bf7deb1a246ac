import { said } from '../words/said';
import type { MaterialForm } from '../stock/material-facts';
import type { CheckedStockLot, CheckInput } from './check-input';
import type { CheckText } from './finding';
import { caution, checkFamily } from './finding';

/** Dyestuff older than this is cautioned about, days. */
export const OLD_DAYS = 3 * 365;

/** Milliseconds in a day. */
export const DAY_MS = 86_400_000;

type StockFinding =
  | { readonly code: 'oldDyestuff'; readonly tag: string; readonly days: number }
  | { readonly code: 'otherForm'; readonly tag: string; readonly form: MaterialForm; readonly meant: MaterialForm }
  | { readonly code: 'untestedMix'; readonly materialName: string; readonly tags: readonly string[] };

function findStock({ plan, stockLots, materials, recipe, today }: CheckInput): StockFinding[] {
  const doses = recipe.steps.flatMap((s) => s.doses);
  return plan.materials.flatMap((planned) => {
    const picked = planned.picks.flatMap((p) => stockLots.filter((j) => j.id === p.stockLotId));
    const isDye = materials.find((m) => m.id === planned.materialId)?.kind === 'dyestuff';
    const meant = doses.flatMap((d) =>
      d.by === 'percentOwf' && d.materialId === planned.materialId && d.form ? [d.form] : [],
    )[0];
    return [
      ...picked.flatMap((stockLot) => [
        ...(isDye ? findOld(stockLot, today) : []),
        ...(meant && stockLot.form && stockLot.form !== meant
          ? [{ code: 'otherForm' as const, tag: stockLot.tag, form: stockLot.form, meant }]
          : []),
      ]),
      ...(isDye && picked.length > 1 && picked.some((j) => j.strengthPercent === null)
        ? [{ code: 'untestedMix' as const, materialName: planned.name, tags: picked.map((j) => j.tag) }]
        : []),
    ];
  });
}

function findOld({ tag, receivedOn }: CheckedStockLot, today: string): StockFinding[] {
  const days = Math.floor((Date.parse(today) - Date.parse(receivedOn)) / DAY_MS);
  return days > OLD_DAYS ? [{ code: 'oldDyestuff', tag, days }] : [];
}

function sayStock(finding: StockFinding): CheckText {
  switch (finding.code) {
    case 'oldDyestuff':
      return caution(
        $localize`${finding.tag} is ${Math.floor(finding.days / 365)} years old.`,
        $localize`Dyestuff weakens in the jar: dye a strip first.`,
        $localize`the label of ${finding.tag}`,
      );
    case 'otherForm':
      return caution(
        $localize`${finding.tag} is ${said(finding.form)}; the recipe means ${said(finding.meant)}.`,
        $localize`Its dose was converted; hue may still differ. Dye a strip first.`,
        $localize`the label of ${finding.tag}`,
      );
    case 'untestedMix':
      return caution(
        $localize`${finding.materialName} comes from ${finding.tags.join($localize` and `)}, and not all of them were tested.`,
        $localize`Two harvests differ: every batch gets the same mix, but the shade may move. Dye a strike-off.`,
        finding.tags.map((tag) => $localize`the label of ${tag}`).join(', '),
      );
  }
}

/** Whether stock lots are old, of another form, or an untested mix. */
export const stockChecks = checkFamily(findStock, sayStock);
