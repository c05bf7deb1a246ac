import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { LotSummary } from '@vestigia/contract';
import { sayMinutes } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { ServerClock } from '../../api/server-clock';
import { liveQuery } from '../../api/live-query';
import { Amount } from '../../format/amount';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { Thread } from '../../ui/thread';
import { When } from '../../ui/when';
import { May } from '../../ui/may';
import { ScrollRegion } from '../../ui/scroll-region';
import { ActBar } from '../../ui/act-bar';
import { Decimals } from '../../ui/decimals';

/** What wants a person now, in the order it wants one. */
@Component({
  selector: 'vs-today',
  imports: [Decimals, ActBar, ScrollRegion, May, RouterLink, Amount, RefusalNote, Swatch, Thread, When],
  templateUrl: './today.html',
  styles: `
    .first {
      border: 3px solid var(--ink);
      padding: 0.75rem 1.25rem;
      background: var(--raised);
    }
    .big {
      font-size: 1.9rem;
      font-weight: 700;
      margin: 0;
      line-height: 1.15;
      max-width: none;
    }
    .strand {
      width: 34%;
      min-width: 10rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TodayPage {
  private readonly api = inject(ApiClient);
  private readonly clock = inject(ServerClock);
  protected readonly today = liveQuery(['lots', 'stores', 'studio'], () => this.api.get('/api/today'));

  /** Lots in work, the one whose moment comes first at the top. */
  private readonly inOrder = computed(() =>
    [...(this.today.value()?.inWork ?? [])].sort((a, b) => wantedAt(a) - wantedAt(b)),
  );
  protected readonly first = computed(() => this.inOrder()[0] ?? this.today.value()?.planned[0]);
  protected readonly others = computed(() => this.inOrder().slice(1));

  protected nextLabel(lot: LotSummary): string {
    const { next } = lot;
    if (!next) return '';
    if (next.startedAt === null)
      return `Not begun. ${next.attended ? 'Hands for' : 'Runs'} ${sayMinutes(next.durationMin)}.`;
    const leftMin = (wantedAt(lot) - this.clock.now()) / 60_000;
    return next.attended
      ? `Begun, hands wanted: ${sayMinutes(next.durationMin)} planned.`
      : leftMin > 0
        ? `${sayMinutes(leftMin)} left.`
        : `Time is up, ${sayMinutes(-leftMin)} ago.`;
  }
}

function wantedAt({ next }: LotSummary): number {
  if (!next) return Infinity;
  return next.startedAt === null || next.attended ? 0 : Date.parse(next.startedAt) + next.durationMin * 60_000;
}
