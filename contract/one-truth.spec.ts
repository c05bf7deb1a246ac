import type {
  Dose,
  Figure,
  HeatLeg,
  LotCheck,
  LotPlan,
  PlannedStrip,
  BroughtEntry,
  RecipePart,
  RunEntry,
  StripLevel,
} from '@vestigia/core';
import { describe, expect, it } from 'vitest';
import type { z } from 'zod';
import type { figureShape } from './common';
import type { lotPlan } from './lot-plan';
import type { lotCheck } from './proposal';
import type { heatLeg, recipeBody } from './recipe-body';
import type { ReadRunEntry, RunEntryView } from './run-entry';
import type { plannedStrip, stripLevel } from './strips';

/** Read-only and not alike, all the way down. */
type Plain<T> = T extends (infer E)[] | readonly (infer E)[]
  ? Plain<E>[]
  : T extends object
    ? { -readonly [K in keyof T]: Plain<T[K]> }
    : T;
type Alike<A, B> = [Plain<A>] extends [Plain<B>] ? ([Plain<B>] extends [Plain<A>] ? true : false) : false;

/** Each member of a union without these parts. */
type Without<T, K extends PropertyKey> = T extends null ? T : Omit<T, K>;
/** A weighing names its movement on the wire only. */
type WithoutMovement<T> = T extends { kind: 'weigh' | 'add'; weighing: infer W }
  ? Omit<T, 'weighing'> & { weighing: Without<W, 'movementId'> }
  : T;

/**
 * Core is free of Zod, so where it has the type, the schema must be that type: the compiler refuses this file where
 * they part.
 */
const ALIKE = {
  figure: true satisfies Alike<Figure, z.infer<typeof figureShape>>,
  lotPlan: true satisfies Alike<LotPlan, z.infer<typeof lotPlan>>,
  lotCheck: true satisfies Alike<LotCheck, z.infer<typeof lotCheck>>,
  heatLeg: true satisfies Alike<HeatLeg, z.infer<typeof heatLeg>>,
  dose: true satisfies Alike<Dose, z.infer<typeof recipeBody>['steps'][number]['doses'][number]>,
  recipePart: true satisfies Alike<RecipePart, z.infer<typeof recipeBody>['parts'][number]>,
  runEntry: true satisfies Alike<RunEntry, Without<RunEntryView, 'recordedAt' | 'by' | 'photos'>>,
  broughtEntry: true satisfies Alike<BroughtEntry, Without<WithoutMovement<ReadRunEntry>, 'at'>>,
  stripLevel: true satisfies Alike<StripLevel, z.infer<typeof stripLevel>>,
  plannedStrip: true satisfies Alike<PlannedStrip, z.infer<typeof plannedStrip>>,
};

describe('types that core and contract both have', () =>
  it('are one: the compiler holds each of these', () => expect(Object.keys(ALIKE)).toHaveLength(10)));
