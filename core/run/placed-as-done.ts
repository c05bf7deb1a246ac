import { sayMinutes } from '../quantity/duration';
import type { PlacedPlan, PlacedZone } from '../recipe/placed';
import type { LotPlan } from '../scaling/lot-plan';
import type { AsDoneChange } from './recipe-as-done';
import type { StepRecord, ZoneRecord } from './step-record';
import { zoneDeviations } from './zone-deviations';

const MS_IN_MIN = 60_000;

/**
 * Placed colour as it was really put on: minutes and millilitres as they were, the mean of the pieces where they
 * differ; what was left out of all pieces is gone. What went as planned stays as written.
 */
export function placedAsDone(
  placed: PlacedPlan,
  plan: LotPlan,
  records: readonly StepRecord[],
): { readonly placed: PlacedPlan; readonly changes: readonly AsDoneChange[] } {
  const changes: AsDoneChange[] = [];
  const zones = placed.zones.flatMap((written, i): PlacedZone[] => {
    const step = plan.steps.find((s) => s.zones?.some((z) => z.zone === i));
    const record = step && records[step.index];
    const told = record?.zones?.filter((z) => z.zone === i) ?? [];
    if (!step || !record || told.length === 0) return [written];
    const say = (message: string): void => void changes.push({ stepTitle: step.title, message });
    if (told.every((z) => z.leftReason !== null) && isOnAll(told, step.zones?.find((z) => z.zone === i)?.pieces ?? 0)) {
      say($localize`“${written.title}” left out: ${told[0]?.leftReason ?? ''}`);
      return [];
    }
    const otherwise = zoneDeviations(step, record).filter((f) => 'title' in f && f.title === written.title);
    const minutes = otherwise.some((f) => f.code === 'zoneTime') ? mean(told.flatMap(minutesIn)) : undefined;
    const ml = otherwise.some((f) => f.code === 'zoneMl') ? mean(told.flatMap((z) => z.ml ?? [])) : undefined;
    if (minutes !== undefined)
      say($localize`“${written.title}” ${sayMinutes(minutes)} instead of ${sayMinutes(written.minutes)}`);
    if (ml !== undefined) say($localize`“${written.title}” ${ml} ml a piece instead of ${written.mlPerPiece ?? 0}`);
    return [
      {
        ...written,
        ...(minutes === undefined ? {} : { minutes }),
        ...(ml === undefined ? {} : { mlPerPiece: ml }),
      },
    ];
  });
  // A plan without zones is none; then it stays, and its words tell what was left out.
  return { placed: zones.length === 0 ? placed : { ...placed, zones }, changes };
}

const isOnAll = (told: readonly ZoneRecord[], pieces: number): boolean =>
  told.some((z) => z.piece === null) || told.length >= pieces;

const minutesIn = ({ inAt, doneAt }: ZoneRecord): number[] =>
  inAt === null || doneAt === null ? [] : [(Date.parse(doneAt) - Date.parse(inAt)) / MS_IN_MIN];

const mean = (values: readonly number[]): number | undefined =>
  values.length === 0 ? undefined : Math.round((values.reduce((sum, v) => sum + v, 0) / values.length) * 10) / 10;
