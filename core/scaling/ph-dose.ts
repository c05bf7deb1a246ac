import { bathPh, doseToPh } from '../bath/ph';
import { figure } from '../quantity/figure';
import type { DoseBy, DoseContext, MeasuredDose } from './dose-context';
import { weighed } from './dose-context';

/** As much as brings the bath to a pH, where the water’s own is known. */
export function phDose(dose: DoseBy<'toPh'>, context: DoseContext): MeasuredDose {
  const { material, bath } = context;
  if (bath.water?.ph === null || bath.water === null)
    return {
      ok: false,
      unknown: { code: 'waterPhUnknown', materialName: material.name, targetPh: dose.targetPh },
    };
  const answer = doseToPh(
    { ph: bath.water.ph, hardnessDh: bath.water.hardnessDh ?? 0 },
    dose.targetPh,
    bath.liquorMl / 1000,
    dose.reagent,
    bath.before,
  );
  if (!answer.ok) {
    const { refusal } = answer;
    return refusal.code === 'thereAlready' || refusal.code === 'wrongWay'
      ? nothingToAdd(dose, context)
      : { ok: false, unknown: { code: 'ph', materialName: material.name, refusal } };
  }
  const advice = [
    $localize`Add ${answer.firstThird} ${answer.unit} first, stir, take the pH, then the rest in small doses.`,
  ];
  if (answer.unit === 'ml' && material.measure === 'volume')
    return {
      ok: true,
      measure: 'volume',
      target: { ...answer.dose, value: Math.round(answer.dose.value) },
      advice,
    };
  const created = weighed(context, answer.dose.value, answer.dose.working.formula, answer.dose.working.inputs);
  return created.ok
    ? {
        ...created,
        target: {
          ...created.target,
          working: {
            ...created.target.working,
            notes: [...answer.dose.working.notes, ...created.target.working.notes],
          },
        },
        advice: [...advice, ...created.advice],
      }
    : created;
}

/** A bath that is there already, or past it on the reagent's own side, gets nothing: it is tested first. */
function nothingToAdd({ targetPh }: DoseBy<'toPh'>, { material, bath, source }: DoseContext): MeasuredDose {
  const { water, before = [] } = bath;
  const nowPh =
    water === null ? 7 : bathPh({ ph: water.ph ?? 7, hardnessDh: water.hardnessDh ?? 0 }, bath.liquorMl / 1000, before);
  return {
    ok: true,
    measure: material.measure,
    advice: [],
    target: figure(
      0,
      material.measure === 'volume' ? 'ml' : 'g',
      $localize`nothing to add`,
      [
        { name: $localize`pH now`, value: nowPh, unit: '', source: water?.name ?? 'water' },
        { name: $localize`pH wanted`, value: targetPh, unit: '', source },
      ],
      [$localize`the bath is there already, or past it: test it before adding anything`],
    ),
  };
}
