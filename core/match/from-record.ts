import type { MaterialKind } from '../stock/material-facts';
import type { MatchFacts, Mordanted } from './lot-dyeing';
import type { MeasuredColour } from './dyeing';
import type { Observation } from './posterior';

/** What of a record of everything dyed and read says what materials, jars and bases are. */
export interface FactsOfRecord {
  readonly materials: readonly { readonly id: string; readonly kind: MaterialKind }[];
  readonly jars: readonly { readonly id: string; readonly receivedOn: string }[];
  readonly undyed: readonly { readonly of: string; readonly colour: MeasuredColour }[];
  readonly mordanted: readonly (Mordanted & { readonly stockLotId: string })[];
}

/** The same as it is looked up. */
export const factsOfRecord = (r: FactsOfRecord): MatchFacts => ({
  kinds: new Map(r.materials.map((m) => [m.id, m.kind])),
  receivedOn: new Map(r.jars.map((j) => [j.id, j.receivedOn])),
  undyed: new Map(r.undyed.map((u) => [u.of, u.colour])),
  mordanted: new Map(r.mordanted.map(({ stockLotId, ...m }) => [stockLotId, m])),
});

/** Readings of a record as they are learnt from: which day’s luck they share is said where a question is asked. */
export const observationsOf = (readings: readonly Omit<Observation, 'day'>[]): Observation[] =>
  readings.map(({ id, dyeing, colour, isMaster = false, readWithin80 = null }) => ({
    id,
    dyeing,
    colour,
    isMaster,
    readWithin80,
    day: null,
  }));
