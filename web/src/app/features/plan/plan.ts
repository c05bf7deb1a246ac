import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { foldRun, isOver, potsInUse, remainingTime, sayMinutes } from '@vestigia/core';
import { forkJoin, map, of, switchMap } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { RefusalNote } from '../../ui/refusal';
import { Thread } from '../../ui/thread';
import { When } from '../../ui/when';
import { ScrollRegion } from '../../ui/scroll-region';
import { TermTip } from '../../ui/term-tip';
import { Said } from '../../ui/said';

/** What is ahead: what open lots still ask for, hands apart from waiting, and which pot is free. */
@Component({
  selector: 'vs-plan',
  imports: [Said, TermTip, ScrollRegion, RouterLink, RefusalNote, Thread, When],
  templateUrl: './plan.html',
  styles: `
    .strand {
      width: 26%;
      min-width: 9rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlanPage {
  private readonly api = inject(ApiClient);
  protected readonly page = liveQuery(['lots', 'studio'], () =>
    this.api.get('/api/today').pipe(
      switchMap((today) => {
        const open = [...today.inWork, ...today.planned];
        return forkJoin({
          studio: this.api.get('/api/studio'),
          lots: open.length === 0 ? of([]) : forkJoin(open.map((l) => this.api.get('/api/lots/{id}', { id: l.id }))),
        }).pipe(map((rest) => ({ today, ...rest })));
      }),
    ),
  );
  protected readonly minutes = sayMinutes;

  protected readonly forecast = computed(() => {
    const p = this.page.value();
    return (p?.lots ?? []).map((lot) => {
      const left = lot.plan.steps.slice(lot.summary.next?.index ?? lot.plan.steps.length);
      const time = remainingTime(left);
      const begun = lot.summary.next?.startedAt ?? p?.today.now ?? '';
      return {
        lot,
        time,
        notBefore: new Date(Date.parse(begun) + (time.handsMin + time.waitingMin) * 60_000).toISOString(),
      };
    });
  });
  protected readonly pots = computed(() => {
    const p = this.page.value();
    const lots = (p?.lots ?? []).map((lot) => {
      const records = foldRun(lot.entries, lot.plan.steps.length);
      return { lot, records, holds: potsInUse(lot.plan, records, lot.summary.tag) };
    });
    return (p?.studio.vessels ?? []).map((vessel) => ({
      vessel,
      holds: lots.flatMap(({ lot, holds }) =>
        holds.filter((h) => h.vesselId === vessel.id).map((h) => ({ ...h, lotId: lot.summary.id })),
      ),
      ahead: lots.flatMap(({ lot, records }) => {
        const steps = lot.plan.steps.filter(
          (s) =>
            records[s.index]?.startedAt === undefined &&
            !isOver(records[s.index]) &&
            s.baths.some((b) => b.vesselId === vessel.id),
        );
        const titles = [...new Set(steps.map((s) => s.title))];
        return titles.length === 0 ? [] : [{ lotId: lot.summary.id, lotTag: lot.summary.tag, titles }];
      }),
    }));
  });
}
