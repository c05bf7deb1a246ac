import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { RefusalNote } from '../../ui/refusal';
import { Thread } from '../../ui/thread';

/** Lots that can be worked on now. */
@Component({
  selector: 'vs-bench-lots',
  imports: [RouterLink, RefusalNote, Thread],
  template: `
    <div class="head"><h1>Bench</h1></div>
    <vs-refusal [problem]="today.problem()" />
    @if (today.value(); as t) {
      @if (t.inWork.length + t.planned.length === 0) { <div class="empty"><p>The bench leads a lot step by step. There is none to work on.</p><a class="act main" routerLink="/lots/new">Start a lot</a></div> }
      @for (lot of [...t.inWork, ...t.planned]; track lot.id) {
        <a class="lot" [routerLink]="['/bench', lot.id]">
          <span class="what"><strong>{{ lot.tag }}</strong> {{ lot.colourway.name }}</span>
          <span class="next">{{ lot.next?.startedAt ? 'Now: ' : 'Next: ' }}{{ lot.next?.title }}</span>
          <vs-thread [stations]="lot.stations" [undyed]="lot.undyed" [master]="lot.master" [result]="lot.result" [batches]="lot.batches" />
        </a>
      }
    }`,
  styles: `.lot { display: grid; grid-template-columns: minmax(0, 14rem) minmax(0, 1fr); gap: 0.25rem 1rem; padding: 0.9rem 0; border-bottom: 1px solid var(--line); text-decoration: none; min-height: 56px; } .lot:hover { background: var(--wash); } .what { font-size: 1.2rem; } .next { font-size: 1.2rem; font-weight: 600; } vs-thread { grid-column: 1 / -1; }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BenchLotsPage {
  private readonly api = inject(ApiClient);
  protected readonly today = live(['lots'], () => this.api.get('/api/today'));
}
