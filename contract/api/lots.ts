import { keptFibre, keptOfLot, keptSpent } from '../kept-fibre';
import { returnedLiquor } from '../liquor';
import { z } from 'zod';
import { lotDetail, lotSummary, lotsBeside } from '../lots';
import { newEyeReading, newReading, newVerdict, verdictTakeBack } from '../readings';
import { newRunEntry } from '../run-entry';
import { agreement, proposal, proposalAsk } from '../proposal';
import { id } from '../common';
import type { Call } from './call';
import { created, TYPES_OF_ATTACHMENTS } from './call';

export const lotsCalls = {
  lots: { method: 'get', path: '/api/lots', summary: 'Every lot, newest first', reply: z.array(lotSummary) },
  lot: { method: 'get', path: '/api/lots/{id}', summary: 'One lot, whole', reply: lotDetail },
  lotBeside: {
    method: 'get',
    path: '/api/lots/{id}/beside',
    summary: 'A lot beside another: what they differ in',
    query: z.object({ other: id }),
    reply: lotsBeside,
  },
  propose: {
    method: 'post',
    path: '/api/lots/proposal',
    summary: 'Scale a colourway to a lot; changes nothing',
    body: proposalAsk,
    reply: proposal,
    role: 'guest',
  },
  agree: {
    method: 'post',
    path: '/api/lots',
    summary: 'Agree to a proposal: the lot is made and stock promised',
    body: agreement,
    reply: created,
  },
  recordEntry: {
    method: 'post',
    path: '/api/lots/{id}/entries',
    summary: 'Record what was done at the bench',
    body: newRunEntry,
    reply: created,
  },
  recordReading: {
    method: 'post',
    path: '/api/lots/{id}/readings',
    summary: 'Record a colour reading',
    body: newReading,
    reply: created,
  },
  recordEye: {
    method: 'post',
    path: '/api/lots/{id}/eyes',
    summary: 'Record what an eye saw',
    body: newEyeReading,
    reply: created,
  },
  attachEyePhoto: {
    method: 'post',
    path: '/api/lots/{id}/eye-photos',
    summary: 'Attach a photograph to what an eye saw',
    query: z.object({ id, eye: id, name: z.string().max(200) }),
    upload: TYPES_OF_ATTACHMENTS,
    reply: created,
  },
  keepFibre: {
    method: 'post',
    path: '/api/lots/{id}/fibre',
    summary: 'Keep pieces of a lot as fibre',
    body: keptFibre,
    reply: created,
  },
  keepSpent: {
    method: 'post',
    path: '/api/lots/{id}/spent',
    summary: 'Keep dyestuff that a lot drew once, for a paler bath',
    body: keptSpent,
    reply: created,
  },
  keptOfLot: {
    method: 'get',
    path: '/api/lots/{id}/kept',
    summary: 'What came of a lot and stands in Stores: pieces, spent dyestuff, baths',
    reply: z.array(keptOfLot),
  },
  writeAsDone: {
    method: 'post',
    path: '/api/lots/{id}/as-done',
    summary: 'Write the recipe’s next version as this lot was really dyed',
    body: z.object({ id }),
    reply: created,
    role: 'dyer',
  },
  returnLiquor: {
    method: 'post',
    path: '/api/lots/{id}/returned-liquor',
    summary: 'Put what is left in a pot back into the jar it was poured from',
    body: returnedLiquor,
    reply: created,
  },
  giveVerdict: {
    method: 'post',
    path: '/api/lots/{id}/verdicts',
    summary: 'Pass, hold or refuse a lot',
    body: newVerdict,
    reply: created,
  },
  takeVerdictBack: {
    method: 'post',
    path: '/api/lots/{id}/verdicts/take-back',
    summary: 'Take back a verdict that was a slip, within the hour',
    body: verdictTakeBack,
    reply: created,
  },
} as const satisfies Record<string, Call>;
