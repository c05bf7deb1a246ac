import type { LotDetail } from '@vestigia/contract';
import type { BathBalance, BathMove, Figure, PlannedBath, PlannedStep, PotLiquor, StepRecord } from '@vestigia/core';
import { figure, foldBath, foldRun, isOver, potLiquor } from '@vestigia/core';

const SAMPLE_ML = 10;
const KEPT_KINDS: readonly PlannedStep['kind'][] = ['tannin', 'mordant', 'dye', 'exhaust', 'modify'];

/** One bath of a step as it stands: what went in and out, what is left, and what is likely still in it. */
export interface CurrentBath {
  readonly bath: PlannedBath | undefined;
  readonly moves: readonly BathMove[];
  readonly balance: BathBalance;
  readonly strength: Figure | undefined;
  readonly strengthOf: string;
  /** As the page that keeps a liquor wants it. */
  readonly toStores: Readonly<Record<string, string>>;
}

export function currentBath(lot: LotDetail, step: PlannedStep, record: StepRecord, batch: number): CurrentBath {
  const bath = step.baths.find((b) => b.batches.includes(batch)) ?? step.baths[0];
  const recordedMoves = (record.bathMoves ?? [])
    .filter((m) => m.batch === batch)
    .map((m) => ({ kind: m.kind, ml: m.ml, label: '' }));
  const samples = (record.samples ?? []).filter((s) => s.of === 'liquor' && s.batch === batch).length;
  const moves: BathMove[] = [
    { kind: 'fill', ml: bath?.liquor.value ?? 0, label: bath?.vesselName ?? '' },
    ...recordedMoves,
    ...(samples > 0
      ? [
          {
            kind: 'takeOut' as const,
            ml: samples * SAMPLE_ML,
            label: $localize`${samples} samples, ${SAMPLE_ML} ml each`,
          },
        ]
      : []),
  ];
  const balance = foldBath(moves);
  const records = foldRun(lot.entries, lot.plan.steps.length);
  const pot = potLiquor(lot.plan, records, step, batch);
  const { left, main, mainDosedG } = pot;
  return {
    bath,
    moves,
    balance,
    strength: main && strengthOf(main.grams, pot),
    strengthOf: main?.name ?? '',
    toStores: {
      fromLot: lot.summary.id,
      litres: (Math.round(left.volumeMl / 100) / 10).toString(),
      pot: bath?.vesselName ?? '',
      kind: step.kind === 'mordant' ? 'mordantBath' : 'dyeBath',
      named: $localize`${lot.summary.colourway.name} bath, ${lot.summary.tag}`,
      ...(main?.materialId ? { of: main.materialId, dosed: `${mainDosedG} g`, leftInIt: main.grams.toString() } : {}),
    },
  };
}

const strengthOf = (grams: number, { mainDosedG, dips, isVat }: PotLiquor): Figure =>
  figure(
    Math.round(grams * 10) / 10,
    'g',
    $localize`weighed in, less what each dip drew and what left with the liquor`,
    [
      { name: $localize`weighed in`, value: mainDosedG, unit: 'g' },
      {
        name: $localize`dips`,
        value: dips,
        unit: '',
        source: isVat
          ? $localize`each draws what 3 ml of liquor hold for a gram of fibre, assumed`
          : $localize`each draws 60 % of what is there, assumed`,
      },
    ],
    [$localize`an estimate: a strip dyed in it says more`],
  );

/** Whether a finished step leaves a bath behind: one that no later step goes on in. */
export function leavesBath(lot: LotDetail, step: PlannedStep): boolean {
  const records = foldRun(lot.entries, lot.plan.steps.length);
  const isSame = (s: PlannedStep): boolean =>
    step.liquor === '' ? s.kind === 'exhaust' && s.usesBath : s.liquor === step.liquor;
  const goesOn = lot.plan.steps.some((s) => s.index > step.index && isSame(s) && !isOver(records[s.index]));
  return step.usesBath && step.baths.length > 0 && KEPT_KINDS.includes(step.kind) && !goesOn;
}
