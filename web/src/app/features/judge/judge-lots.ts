import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { LotLedger } from '../../ui/lot-ledger';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';

/** Lots that wait for an eye, and those still on their way. */
@Component({
  selector: 'vs-judge-lots',
  imports: [RouterLink, LotLedger, RefusalNote, Swatch],
  template: ` <div class="head"><h1>Judge</h1></div>
    <vs-refusal [problem]="today.problem()" />
    @if (today.value(); as t) {
      @if (t.toJudge.length === 0) {
        <div class="empty">
          <p>
            Nothing is dry and waiting. A lot comes here when its last step at the bench is done; readings can be taken
            earlier, from the lot in work.
          </p>
        </div>
      }
      <div class="waiting">
        @for (lot of t.toJudge; track lot.id) {
          <a [routerLink]="['/judge', lot.id]"
            ><span class="mounts"
              ><vs-swatch [lab]="lot.master" [width]="6" label="master" />
              @if (lot.result; as r) {
                <vs-swatch [lab]="r" [width]="6" [label]="lot.tag" />
              }</span
            ><strong>{{ lot.tag }}</strong> {{ lot.colourway.name }}<br />{{
              lot.deltaE === null ? 'no dry reading yet' : 'ΔE00 ' + lot.deltaE.toFixed(2)
            }}{{ lot.state === 'held' ? ', held' : '' }}</a
          >
        }
      </div>
      @if (t.inWork.length > 0) {
        <h2>On their way</h2>
        <p>
          Take a wet or dry reading of a lot still in work:
          <span>
            @for (lot of t.inWork; track lot.id) {
              <a [routerLink]="['/judge', lot.id]">{{ lot.tag }}, {{ lot.colourway.name }}</a
              >&ngsp;
            }
          </span>
        </p>
      }
    }
    @if (lots.value(); as all) {
      <h2>Judged lately</h2>
      <vs-lot-ledger [lots]="judged(all)" />
    }`,
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
  private readonly api = inject(ApiClient);
  protected readonly today = live(['lots'], () => this.api.get('/api/today'));
  protected readonly lots = live(['lots'], () => this.api.get('/api/lots'));
  protected readonly judged = <T extends { state: string }>(all: readonly T[]): T[] =>
    all.filter((l) => l.state === 'released' || l.state === 'refused').slice(0, 8);
}
