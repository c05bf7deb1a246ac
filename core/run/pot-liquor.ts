import { carriedOffMl } from '../bath/bath-ledger';
import type { BathContent, LiquorChange, StandingLiquor } from '../bath/saved-bath';
import { changeLiquor } from '../bath/saved-bath';
import { vatDipShare } from '../bath/vat-dips';
import { takesPieces } from '../recipe/step-kind';
import type { StepKind } from '../recipe/step-kind';
import { liquorSteps } from '../scaling/liquor-steps';
import type { LotPlan, PlannedBath, PlannedStep } from '../scaling/lot-plan';
import type { MaterialKind } from '../stock/material-facts';
import type { StepRecord } from './step-record';

/** Share of a dose that fibre is taken to draw, where no sample says otherwise. General practice. */
const USUAL_TAKEN = 0.6;
const SAMPLE_ML = 10;

/** What fibre draws from a bath; the rest only helps and stays in it. */
const DRAWN: readonly MaterialKind[] = ['dyestuff', 'mordant', 'tannin', 'modifier'];

/** Whether fibre draws a kind of material from a bath. */
export const isDrawn = (kind: MaterialKind): boolean => DRAWN.includes(kind);

/** What a bath is called after. */
const MAIN_KIND: Readonly<Partial<Record<StepKind | 'fibre', MaterialKind>>> = {
  tannin: 'tannin',
  mordant: 'mordant',
  extract: 'dyestuff',
  dye: 'dyestuff',
  pull: 'dyestuff',
  exhaust: 'dyestuff',
  modify: 'modifier',
};

/** A pot's liquor as its record has it, once the pieces are out. Volumes in ml, weights in g. */
export interface PotLiquor {
  readonly left: StandingLiquor;
  /** What the bath is called after, as much as is likely left of it. */
  readonly main: BathContent | undefined;
  /** How much of that was weighed into it, dips before included. */
  readonly mainDosedG: number;
  /** How often fibre drew from it. */
  readonly dips: number;
  /** The last of them was in a vat, where a dip draws by how much fibre there is to how much liquor. */
  readonly isVat: boolean;
}

/**
 * What is likely left in the pot of a step, once its pieces are lifted: everything weighed into its liquor, less what
 * each dip drew, one after the other, what was poured off and what the pieces carried away. Steam takes water alone.
 * An estimate: uptake is assumed.
 */
export function potLiquor(plan: LotPlan, records: readonly StepRecord[], step: PlannedStep, batch: number): PotLiquor {
  const own = step.baths.find((b) => b.batches.includes(batch)) ?? step.baths[0];
  const kindOf = (c: BathContent): MaterialKind | null =>
    plan.materials.find((m) => m.materialId === c.materialId)?.kind ?? null;
  const draws = (c: BathContent): boolean => c.drawn ?? isDrawn(kindOf(c) ?? 'dyestuff');
  const dosed: BathContent[] = [];
  let liquor: StandingLiquor = { volumeMl: 0, contents: [] };
  let dips = 0;
  let isVat = false;
  const change = (what: LiquorChange): void => {
    liquor = changeLiquor(liquor, what);
  };
  let standing: PlannedBath | undefined;
  for (const s of liquorSteps(plan, step)) {
    const bath = bathIn(s, batch, own);
    const record = records[s.index];
    if (bath && !standing) change({ kind: 'water', ml: bath.liquor.value });
    else if (bath && standing && bath.batches.join() !== standing.batches.join())
      change({ kind: 'water', ml: bath.water?.value ?? 0 });
    standing = bath ?? standing;
    for (const content of weighedInto(plan, record, bath)) {
      dosed.push(content);
      change({ kind: 'dosed', content });
    }
    for (const move of movesOf(record, bath, liquor.volumeMl)) change(move);
    if (bath && takesPieces(s) && record?.startedAt !== undefined) {
      isVat = isDipped(s);
      dips += isVat ? s.repeats : 1;
      const carriedMl = carriedOffMl(bath.wof.value);
      change({ kind: 'fibre', takenShare: takenShare(s, bath.wof.value, liquor.volumeMl), carriedMl, draws });
    }
  }
  const wanted = MAIN_KIND[step.kind];
  const heaviest = (of: readonly BathContent[]): BathContent | undefined =>
    [...of].sort((a, b) => b.grams - a.grams)[0];
  const main =
    heaviest(liquor.contents.filter((c) => kindOf(c) === wanted)) ??
    heaviest(liquor.contents.filter(draws)) ??
    heaviest(liquor.contents);
  const mainDosedG = dosed.filter((c) => c.materialId === main?.materialId).reduce((sum, c) => sum + c.grams, 0);
  return { left: liquor, main, mainDosedG: Math.round(mainDosedG * 1000) / 1000, dips, isVat };
}

/** Whether pieces are dipped and lifted to the air: a vat’s way. */
const isDipped = ({ course }: PlannedStep): boolean => course.some((leg) => leg.do === 'air');

/** Share that fibre draws at a step: dip by dip in a vat. */
function takenShare(step: PlannedStep, wofG: number, volumeMl: number): number {
  return isDipped(step) && volumeMl > 0 ? 1 - (1 - vatDipShare(wofG, volumeMl)) ** step.repeats : USUAL_TAKEN;
}

/** The filling of a step that is of the same pot. */
const bathIn = (step: PlannedStep, batch: number, own: PlannedBath | undefined): PlannedBath | undefined =>
  step.baths.find((b) => b.batches.includes(batch)) ??
  step.baths.find((b) => b.vesselId === own?.vesselId) ??
  step.baths[0];

function weighedInto(plan: LotPlan, record: StepRecord | undefined, bath: PlannedBath | undefined): BathContent[] {
  const unplanned = (record?.added ?? [])
    .filter((a) => bath === undefined || bath.batches.includes(a.batch))
    .flatMap(({ materialId, name, measure, amount, contents }) =>
      contents
        ? [...contents]
        : measure === 'weight' && materialId !== null && amount !== null
          ? [{ materialId, name, grams: amount / 1000 }]
          : [],
    );
  const weighed = (record?.weighings ?? [])
    .filter((w) => bath === undefined || bath.batches.includes(w.batch))
    .flatMap(({ materialId, amount, contents }) => {
      // A kept liquor brings what is dissolved in it.
      if (contents) return [...contents];
      const material = plan.materials.find((m) => m.materialId === materialId);
      return material?.measure === 'weight' ? [{ materialId, name: material.name, grams: amount / 1000 }] : [];
    });
  return [...weighed, ...unplanned];
}

/** What was noted of the pot while the step ran. A measuring sets the volume: what is missing has steamed off. */
function movesOf(record: StepRecord | undefined, bath: PlannedBath | undefined, volumeMl: number): LiquorChange[] {
  let now = volumeMl;
  const moves = (record?.bathMoves ?? [])
    .filter((m) => bath === undefined || bath.batches.includes(m.batch))
    .map((m): LiquorChange => {
      const before = now;
      now = m.kind === 'level' ? m.ml : m.kind === 'add' || m.kind === 'fill' ? now + m.ml : Math.max(0, now - m.ml);
      if (now > before) return { kind: 'water', ml: now - before };
      return { kind: m.kind === 'takeOut' ? 'pouredOff' : 'steamedOff', ml: before - now };
    });
  const samples = (record?.samples ?? []).filter((s) => s.of === 'liquor' && bath?.batches.includes(s.batch)).length;
  return samples > 0 ? [...moves, { kind: 'pouredOff', ml: samples * SAMPLE_ML }] : moves;
}
