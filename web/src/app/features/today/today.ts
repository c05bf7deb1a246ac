import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { UrlTree } from '@angular/router';
import { Router, RouterLink } from '@angular/router';
import type { LotSummary, PageAtHand } from '@vestigia/contract';
import { LINE_STATE_LABELS, countLabel, sayTouch } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { Session } from '../../api/session';
import { nowMs } from '../../services/now-ms';
import { inOrderOfMoment, sayNext } from './next-of-lot';
import { AskNotices } from '../../ui/ask-notices';
import { liveQuery } from '../../api/live-query';
import { pageAction } from '../../api/page-action';
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
  imports: [AskNotices, Decimals, ActBar, ScrollRegion, May, RouterLink, Amount, RefusalNote, Swatch, Thread, When],
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
    .at-hand {
      list-style: none;
      padding: 0;
      display: flex;
      flex-wrap: wrap;
      gap: 0.25rem 2rem;
    }
    .at-hand a {
      display: inline-flex;
      align-items: center;
      min-height: 44px;
      font-weight: 700;
    }
    .mine th,
    .mine td {
      font-weight: 700;
    }
    .strand {
      width: 34%;
      min-width: 10rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TodayPage {
  /** What its template says by what holds. */
  protected readonly says = {
    noLongerAtHand: (title: string | number): string => $localize`No longer at hand: ${title}`,
    noDryReadingYet: $localize`no dry reading yet`,
    toMaster: (deltaE: string | number): string => $localize`ΔE00 ${deltaE} to the master`,
    held: $localize`held`,
    piecesOf: (pieces: number, stands: string): string =>
      $localize`${countLabel(pieces, 'piece')} to hand over, ${stands}`,
    washedScrap: $localize`the washed scrap`,
    openHalf: $localize`the open half of the card`,
  };

  protected readonly lineLabels = LINE_STATE_LABELS;
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly session = inject(Session);
  private readonly now = nowMs();
  protected readonly atHand = liveQuery(['studio'], () => this.api.get('/api/at-hand'));
  protected readonly lettingGo = pageAction();
  protected readonly today = liveQuery(['lots', 'stores', 'studio', 'plan', 'orders'], () =>
    this.api.get('/api/today'),
  );

  private readonly inOrder = computed(() => inOrderOfMoment(this.today.value()?.inWork ?? []));
  protected readonly first = computed(() => this.inOrder()[0] ?? this.today.value()?.planned[0]);
  protected readonly others = computed(() => this.inOrder().slice(1));

  /** One’s own first, then the others’, each in the order of the clock. */
  protected readonly byPlan = computed(() => {
    const me = this.session.person()?.id;
    return (this.today.value()?.byPlan ?? [])
      .map((t) => ({ ...t, isMine: t.personId === me, said: sayTouch(t) }))
      .sort((a, b) => Number(b.isMine) - Number(a.isMine));
  });

  protected readonly nextLabel = (lot: LotSummary): string => sayNext(lot, this.now());

  /** A view kept by name has behind its address how it is narrowed and sorted. */
  protected readonly linkTo = (page: PageAtHand): UrlTree => this.router.parseUrl(page.path);

  protected letGo(page: PageAtHand): void {
    this.lettingGo.run(this.api.put('/api/at-hand', { ...page, keep: false }), () => this.atHand.reload());
  }
}
