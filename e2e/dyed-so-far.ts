import type { LotDetail } from '@vestigia/contract';
import { v7 as newId } from 'uuid';
import type { Someone } from './person';

/** An entry of a run as the bench sends it; what is left out is empty. */
export const entry = (stepIndex: number, kind: string, rest: object = {}): object => ({
  id: newId(),
  stepIndex,
  kind,
  replacesId: null,
  temperatureC: null,
  text: null,
  weighing: null,
  ...rest,
});

type Step = LotDetail['plan']['steps'][number];

/**
 * Does everything of a lot that is still open before a step, as planned, and begins that step with all weighed out.
 */
export async function dyedUpTo(person: Someone, lotId: string, isIt: (step: Step) => boolean): Promise<Step> {
  const step = await dye(person, lotId, isIt);
  if (!step) throw new Error('the lot has no such step');
  return step;
}

/** Does all that is still open of a lot, as planned. */
export async function dyedToTheEnd(person: Someone, lotId: string): Promise<void> {
  await dye(person, lotId, () => false);
}

async function dye(person: Someone, lotId: string, isIt: (step: Step) => boolean): Promise<Step | undefined> {
  const { plan, entries } = await person.ask<LotDetail>(`/api/lots/${lotId}`);
  const write = (body: object): Promise<object> => person.send(`/api/lots/${lotId}/entries`, body);
  const did = (stepIndex: number, kind: string): boolean =>
    entries.some((e) => e.stepIndex === stepIndex && e.kind === kind);
  for (const step of plan.steps) {
    if (did(step.index, 'finish')) continue;
    if (did(step.index, 'start')) {
      await write(entry(step.index, 'finish', { text: 'as planned' }));
      continue;
    }
    await write(entry(step.index, 'start'));
    for (const w of step.weighings)
      for (const pick of w.picks) {
        const amount =
          w.measure === 'pieces' ? String(pick.amount) : `${pick.amount / 1000} ${w.measure === 'volume' ? 'ml' : 'g'}`;
        const { batch, materialId } = w;
        const weighing = { batch, materialId, stockLotId: pick.stockLotId, quantityText: amount, movementId: newId() };
        await write(entry(step.index, 'weigh', { weighing }));
      }
    if (isIt(step)) return step;
    await write(entry(step.index, 'finish', { text: 'as planned' }));
  }
  return undefined;
}
