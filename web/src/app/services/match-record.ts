import type { Signal } from '@angular/core';
import { Injectable, computed, inject } from '@angular/core';
import type { LabUnder, MatchRecord } from '@vestigia/contract';
import type { Dyeing, LetterNames, MatchFacts, Observation, ShelfMaterial } from '@vestigia/core';
import { MATCH_CONDITIONS, factsOfRecord, observationsOf, usualDoses, waterToMatch } from '@vestigia/core';
import type { ShownProblem } from '../api/api-client';
import { ApiClient } from '../api/api-client';
import { liveQuery } from '../api/live-query';
import { ServerClock } from '../api/server-clock';

const YEAR_MS = 365.25 * 86_400_000;

/** What was dyed and read so far, as the pages ask the match about it. Provided by each page: it stays true while open. */
@Injectable()
export class MatchRecordReader {
  private readonly api = inject(ApiClient);
  private readonly clock = inject(ServerClock);
  private readonly read = liveQuery(['lots', 'stores', 'colourways'], () => this.api.get('/api/match/record'));
  readonly value: Signal<MatchRecord | undefined> = this.read.value;
  readonly problem: Signal<ShownProblem | undefined> = this.read.problem;

  readonly readings = computed((): Observation[] => observationsOf(this.value()?.readings ?? []));
  readonly facts = computed((): MatchFacts | undefined => {
    const r = this.value();
    return r && factsOfRecord(r);
  });
  readonly names = computed((): LetterNames => {
    const r = this.value();
    return {
      material: (id) => r?.materials.find((m) => m.id === id)?.name ?? 'something',
      jar: (id) => [...(r?.jars ?? []), ...(r?.baseLots ?? [])].find((j) => j.id === id)?.tag ?? $localize`another jar`,
      water: (id) => r?.waters.find((w) => w.id === id)?.name ?? $localize`another water`,
    };
  });
  readonly waters = computed((): Dyeing['water'][] => (this.value()?.waters ?? []).map(waterToMatch));

  /** What stands on the shelf, with what is usual of it in the record. */
  readonly shelf = computed((): ShelfMaterial[] => {
    const r = this.value();
    if (!r) return [];
    const roles = new Map(r.readings.flatMap(({ dyeing }) => dyeing.doses.map((d) => [d.materialId, d.role] as const)));
    return [...usualDoses(r.readings)].flatMap(([materialId, usualPercent]) => {
      const role = roles.get(materialId);
      const jars = r.jars
        .filter((j) => j.materialId === materialId && j.free > 0)
        .map((j) => ({
          stockLotId: j.id,
          ageYears: Math.max(0, (this.clock.now() - Date.parse(j.receivedOn)) / YEAR_MS),
        }));
      return role && jars.length > 0 ? [{ materialId, role, jars, usualPercent }] : [];
    });
  });
}

/** A shade that was foretold, to be shown: under the light the match works in. */
export const foretoldUnder = ({ L, a, b }: { L: number; a: number; b: number }): LabUnder => ({
  L,
  a,
  b,
  ...MATCH_CONDITIONS,
});
