import type { PlanFacts } from './house-plan';

/** A touch of somebody’s hands that the accepted plan has and nobody began yet. Times ISO in UTC. */
export interface TouchAhead {
  readonly lotId: string;
  readonly lotTag: string;
  readonly stepIndex: number;
  readonly title: string;
  /** Begins a step, ends it, or is all of it. */
  readonly kind: 'begin' | 'end' | 'stay';
  readonly personId: string;
  readonly startAt: string;
  readonly endAt: string;
}

/** What hands are still asked for by the accepted plan, in the order of the clock; nothing while there is none. */
export function touchesAhead({ accepted, lots }: Pick<PlanFacts, 'accepted' | 'lots'>): TouchAhead[] {
  return (accepted?.places ?? [])
    .flatMap((p): TouchAhead[] => {
      const lot = lots.find((l) => l.id === p.lotId);
      const step = lot?.steps.find((s) => s.index === p.stepIndex);
      const record = lot?.records[p.stepIndex];
      if (!lot || !step || record?.finishedAt !== undefined || record?.skippedReason !== undefined) return [];
      const isBegun = record?.startedAt !== undefined;
      const touch = (
        kind: TouchAhead['kind'],
        personId: string | null,
        startAt: string,
        endAt: string,
      ): TouchAhead[] =>
        personId === null || startAt === endAt
          ? []
          : [
              {
                lotId: lot.id,
                lotTag: lot.tag,
                stepIndex: step.index,
                title: step.title,
                kind,
                personId,
                startAt,
                endAt,
              },
            ];
      if (step.times.watched) return isBegun ? [] : touch('stay', p.beginBy, p.startAt, p.endAt);
      return [
        ...(isBegun ? [] : touch('begin', p.beginBy, p.startAt, p.aloneFromAt)),
        ...touch('end', p.endBy, p.aloneToAt, p.endAt),
      ];
    })
    .sort((a, b) => (a.startAt < b.startAt ? -1 : a.startAt > b.startAt ? 1 : 0));
}

/** What a touch asks for, in words. */
export function sayTouch({ kind, title }: Pick<TouchAhead, 'kind' | 'title'>): string {
  switch (kind) {
    case 'begin':
      return $localize`Begin: ${title}`;
    case 'end':
      return $localize`Take out or look after: ${title}`;
    case 'stay':
      return title;
  }
}
