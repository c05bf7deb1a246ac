import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { LotLedger } from '../../ui/lot-ledger';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { JudgeNav } from './judge-nav';
import { Decimals } from '../../ui/decimals';

/** Lots that wait for an eye, and those still on their way. */
@Component({
  selector: 'vs-judge-lots',
  imports: [Decimals, RouterLink, JudgeNav, LotLedger, RefusalNote, Swatch],
  templateUrl: './judge-lots.html',
  styles: `
    .waiting {
      display: flex;
      flex-wrap: wrap;
      gap: 1.25rem;
    }
    .waiting a {
      text-decoration: none;
    }
    .waiting a:hover strong {
      text-decoration: underline;
    }
    .mounts {
      margin: 0 0 0.4rem;
      gap: 0;
      padding: 1.25rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JudgeLotsPage {
  /** What its template says by what holds. */
  protected readonly says = {
    noDryReadingYet: $localize`no dry reading yet`,
    held: $localize`, held`,
  };

  private readonly api = inject(ApiClient);
  protected readonly today = liveQuery(['lots'], () => this.api.get('/api/today'));
  protected readonly lots = liveQuery(['lots'], () => this.api.get('/api/lots'));
  protected readonly judged = <T extends { state: string }>(all: readonly T[]): T[] =>
    all.filter((l) => l.state === 'released' || l.state === 'refused').slice(0, 8);
}
