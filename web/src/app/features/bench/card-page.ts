import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import type { LotDetail, TouchResult } from '@vestigia/contract';
import { foldRun, formatAmount, isOver, smallestIn } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import type { KeyedStep } from './card-entries';
import { entriesOf, readClock } from './card-entries';

/** The bench card: printed to write on by hand where tablets keep away from steam, and keyed in afterwards with the times as written. */
@Component({
  selector: 'vs-card-page',
  imports: [FormsModule, RouterLink, RefusalNote],
  template: ` <vs-refusal [problem]="lot.problem()" />
    @if (lot.value(); as l) {
      <div class="head">
        <h1>Bench card · {{ l.summary.tag }} {{ l.summary.colourway.name }}</h1>
        <div class="actions">
          <button class="act main" type="button" (click)="print('A4')">Card on A4</button
          ><button class="act" type="button" (click)="print('Letter')">Card on Letter</button
          ><a class="act" [routerLink]="['/bench', l.summary.id]">To the bench</a>
        </div>
      </div>
      <h2>Key in what was written by hand</h2>
      <p>
        Times as they stand on the card, like 9:40 or 14.05. Leave empty what was not written; a step without a time is
        left as it is.
      </p>
      <form (ngSubmit)="keep(l)">
        <label class="day">Dyed on <input type="date" name="day" [(ngModel)]="day" /></label>
        <div class="scroller">
          <table class="ledger keyed">
            <thead>
              <tr>
                <th>Step</th>
                <th>Begun</th>
                <th>Finished</th>
                <th>Hottest, °C</th>
                <th>pH</th>
                <th>Weighed</th>
                <th>Note</th>
              </tr>
            </thead>
            <tbody>
              @for (k of keyed(); track k.step.index) {
                <tr [class.soft]="!k.open">
                  <td>
                    <strong>{{ k.step.index + 1 }}</strong> {{ k.step.title }}
                  </td>
                  @if (k.open) {
                    <td>
                      <input
                        [name]="'b' + k.step.index"
                        inputmode="numeric"
                        size="5"
                        placeholder="9:40"
                        [(ngModel)]="k.begun"
                        [attr.aria-label]="'Begun, ' + k.step.title"
                      />
                    </td>
                    <td>
                      <input
                        [name]="'f' + k.step.index"
                        inputmode="numeric"
                        size="5"
                        placeholder="9:40"
                        [(ngModel)]="k.finished"
                        [attr.aria-label]="'Finished, ' + k.step.title"
                      />
                    </td>
                    <td>
                      <input
                        [name]="'t' + k.step.index"
                        inputmode="decimal"
                        size="5"
                        [(ngModel)]="k.hottest"
                        [attr.aria-label]="'Hottest, ' + k.step.title"
                      />
                    </td>
                    <td>
                      <input
                        [name]="'p' + k.step.index"
                        inputmode="decimal"
                        size="4"
                        [(ngModel)]="k.ph"
                        [attr.aria-label]="'pH, ' + k.step.title"
                      />
                    </td>
                    <td>
                      @for (w of k.weighings; track $index) {
                        <div class="weighing">
                          <span
                            >{{ w.name }} {{ w.planned }}
                            @if (l.plan.batches.length > 1) {
                              , batch {{ w.batch }}
                            }
                          </span>
                          <input
                            [name]="'w' + k.step.index + '-' + $index"
                            size="9"
                            [(ngModel)]="w.written"
                            [attr.aria-label]="'Weighed, ' + w.name"
                          />
                          <select
                            [name]="'j' + k.step.index + '-' + $index"
                            [(ngModel)]="w.jarId"
                            [attr.aria-label]="'Jar of ' + w.name"
                          >
                            @for (j of jarsOf(l, w.materialId); track j.id) {
                              <option [value]="j.id">{{ j.tag }}</option>
                            }
                          </select>
                        </div>
                      }
                    </td>
                    <td>
                      <input
                        [name]="'n' + k.step.index"
                        [(ngModel)]="k.note"
                        [attr.aria-label]="'Note, ' + k.step.title"
                      />
                    </td>
                  } @else {
                    <td colspan="6">recorded already</td>
                  }
                </tr>
              }
            </tbody>
          </table>
        </div>
        @for (r of refused(); track r.id) {
          <p class="off" role="alert">{{ r.sentence }}</p>
        }
        @if (kept()) {
          <p role="status">
            <strong>{{ kept() }}</strong>
          </p>
        }
        <vs-refusal [problem]="action.problem()" />
        <div class="actions"><button class="act main" type="submit" [disabled]="action.busy()">Key it in</button></div>
      </form>
    }`,
  styles: `
    input,
    select {
      font: inherit;
      min-height: 44px;
      box-sizing: border-box;
      border: 1.5px solid var(--line-strong);
      background: var(--raised);
      color: var(--ink);
      padding: 0 0.4rem;
      max-width: 100%;
    }
    .keyed {
      max-width: none;
    }
    .weighing {
      display: flex;
      flex-wrap: wrap;
      gap: 0.4rem;
      align-items: center;
      margin: 0.2rem 0;
    }
    .day {
      display: inline-flex;
      gap: 0.6rem;
      align-items: center;
      margin-bottom: 0.75rem;
    }
    td {
      vertical-align: top;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CardPage {
  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  protected readonly action = doing();
  protected readonly lot = live(
    ['lots'],
    () => this.api.get('/api/lots/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly day = signal(new Date().toLocaleDateString('en-CA'));
  protected readonly refused = signal<readonly TouchResult[]>([]);
  protected readonly kept = signal('');
  private readonly whole = computed(() => {
    const l = this.lot.value();
    return l ? `${l.summary.id} ${l.entries.length}` : '';
  });
  protected readonly keyed = linkedSignal({
    source: this.whole,
    computation: (): KeyedStep[] => {
      const l = this.lot.value();
      if (!l) return [];
      const records = foldRun(l.entries, l.plan.steps.length);
      return l.plan.steps.map((step) => ({
        step,
        open: !isOver(records[step.index]),
        begun: '',
        finished: '',
        hottest: '',
        ph: '',
        note: '',
        weighings: step.weighings.map((w) => ({
          batch: w.batch,
          materialId: w.materialId,
          name: w.materialName,
          planned: formatAmount(Math.round(w.target.value * smallestIn(w.measure)), w.measure),
          written: '',
          jarId: w.picks[0]?.stockLotId ?? this.jarsOf(l, w.materialId)[0]?.id ?? '',
        })),
      }));
    },
  });

  protected print(paper: 'A4' | 'Letter'): void {
    const open = window.open('', '_blank');
    // The lot gets its code first, so that scanning the card leads back to it.
    this.action.run(this.api.post('/api/tags', { id: newId(), tags: [{ kind: 'lot', lotId: this.id() }] }), () => {
      if (open) open.location.href = `/api/lots/${this.id()}/card.pdf?paper=${paper}`;
    });
  }

  protected keep(lot: LotDetail): void {
    this.kept.set('');
    const unread = this.keyed()
      .flatMap((k) => [k.begun, k.finished])
      .find((t) => t.trim() !== '' && readClock(t) === undefined);
    if (unread !== undefined) {
      this.refused.set([
        { id: '', ok: false, reason: '', sentence: `“${unread}” is no time of day. Write it like 9:40 or 14.05.` },
      ]);
      return;
    }
    const entries = entriesOf(this.keyed(), lot, this.day());
    if (entries.length === 0) {
      this.refused.set([
        { id: '', ok: false, reason: '', sentence: 'Nothing was filled in. Copy what stands on the card.' },
      ]);
      return;
    }
    this.action.run(
      this.api.post('/api/bench/touches', {
        touches: entries.map((entry) => ({ lotId: lot.summary.id, ageMs: 0, entry })),
      }),
      ({ results }) => {
        this.refused.set(results.filter((r) => !r.ok));
        const taken = results.filter((r) => r.ok).length;
        this.kept.set(taken === 0 ? '' : `${taken} lines keyed in.`);
      },
    );
  }

  protected readonly jarsOf = (l: LotDetail, materialId: string) => l.jars.filter((j) => j.materialId === materialId);
}
