import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { Walk } from '@vestigia/contract';
import { formatAmount, readAmount } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { House } from '../../api/house';
import { live } from '../../api/live';
import { Amount } from '../../ui/amount';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { countedLines, differingLines, nextJar, sayBooking } from './walk-order';

type Line = Walk['lines'][number];

/** One count: a jar at a time, then the differences with what may be behind them, then all booked together. */
@Component({
  selector: 'vs-count-walk',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, Amount, RefusalNote],
  providers: [House],
  template: ` <vs-refusal [problem]="walk.problem()" />
    @if (walk.value(); as w) {
      <div class="head">
        <div>
          <h1>Counting {{ w.place || 'the whole studio' }}</h1>
          <p class="soft">{{ done().length }} of {{ w.lines.length }} jars counted{{ w.blind ? ', blind' : '' }}</p>
        </div>
      </div>
      @if (w.bookedAt) {
        <p><strong>This count is booked.</strong> <a routerLink="/stores">Back to the shelf</a></p>
      } @else if (current(); as line) {
        <section class="one">
          <p class="big">{{ line.row.tag }}</p>
          <p class="what">
            {{ line.row.material }}{{ line.row.form ? ', ' + line.row.form : '' }} · {{ line.row.place }}
          </p>
          @if (!w.blind) {
            <p>The screen expects {{ line.row.onHand | amount: line.row.measure }}.</p>
          }
          @if (line.movedSince) {
            <p class="refusal">It moved since it was counted. Weigh it again.</p>
          }
          <form (ngSubmit)="enter(line)">
            <div class="fields">
              <mat-form-field
                ><mat-label>{{ gross() ? 'It weighs, with its container' : 'How much there is' }}</mat-label
                ><input
                  #figure
                  matInput
                  name="written"
                  [(ngModel)]="written"
                  (ngModelChange)="fromBalance.set(false)"
                  autocomplete="off"
                  placeholder="e.g. 640 g, or 0"
              /></mat-form-field>
            </div>
            @if (line.row.measure === 'weight') {
              <label class="tick"
                ><input type="checkbox" name="gross" [(ngModel)]="gross" /> with its container{{
                  line.tareMg === null ? '' : ' of ' + amount(line.tareMg, 'weight')
                }}</label
              >
              @if (gross() && line.tareMg === null) {
                <p class="small">
                  What its container weighs is not known here: weigh without it, or write it on the jar’s label first.
                </p>
              }
            }
            @if (echo(); as words) {
              <p>{{ words }}</p>
            }
            <vs-refusal [problem]="entering.problem()" />
            <div class="actions">
              <button class="act main bench" type="submit" [disabled]="entering.busy() || written().trim() === ''">
                Next jar
              </button>
              @if (line.row.measure === 'weight') {
                <button class="act" type="button" (click)="readBalance(line)" [disabled]="weighing.busy()">
                  Read the balance
                </button>
              }
              <button class="plain" type="button" (click)="skip(line)">Not now</button>
            </div>
            @if (instrument()) {
              <p class="small soft">{{ instrument() }}</p>
            }
            <vs-refusal [problem]="weighing.problem()" />
          </form>
        </section>
      } @else {
        <p>
          <strong>Every jar here has a figure.</strong>
          {{ differing().length === 0 ? 'All agree with the screen.' : 'These differ. Look before you book.' }}
        </p>
      }
      @if (done().length > 0) {
        <h2>Counted</h2>
        <div class="scroller">
          <table class="ledger">
            <thead>
              <tr>
                <th>Jar</th>
                <th>Material</th>
                <th class="number">Screen</th>
                <th class="number">Counted</th>
                <th class="number">Difference</th>
                <th>What may be behind it</th>
                <th></th>
              </tr>
            </thead>
            <tbody>
              @for (l of done(); track l.row.id) {
                <tr [class.mark]="l.difference !== 0">
                  <td class="number">
                    <strong>{{ l.row.tag }}</strong>
                  </td>
                  <td>{{ l.row.material }}</td>
                  <td class="number">{{ l.seenOnHand ?? 0 | amount: l.row.measure }}</td>
                  <td class="number">{{ l.counted ?? 0 | amount: l.row.measure }}</td>
                  <td class="number">
                    {{ l.difference === 0 ? 'none' : (l.difference ?? 0 | amount: l.row.measure : true) }}
                  </td>
                  <td class="small">
                    @if (l.movedSince) {
                      <strong>moved since: count it again. </strong>
                    }
                    @if (l.difference !== 0 && !w.bookedAt) {
                      <label
                        >Reason
                        <input
                          [attr.list]="'r' + l.row.id"
                          [name]="'why' + l.row.id"
                          [ngModel]="reasons()[l.row.id] ?? l.reasons[0] ?? ''"
                          (ngModelChange)="reason(l.row.id, $event)"
                          class="reason" /></label
                      ><datalist [id]="'r' + l.row.id">
                        @for (r of l.reasons; track r) {
                          <option [value]="r"></option>
                        }
                      </datalist>
                      @if (l.reasons.length > 1) {
                        <br />or {{ l.reasons.slice(1).join('; or ') }}
                      }
                    }
                  </td>
                  <td>
                    @if (!w.bookedAt) {
                      <button class="plain small" type="button" (click)="again.set(l.row.id)">Again</button>
                    }
                  </td>
                </tr>
              }
            </tbody>
          </table>
        </div>
        @if (!w.bookedAt) {
          <vs-refusal [problem]="booking.problem()" />
          <div class="actions">
            <button class="act" [class.main]="!current()" type="button" (click)="book()" [disabled]="booking.busy()">
              {{ sayBooking(differing().length) }}
            </button>
          </div>
        }
      }
    }`,
  styles: `
    .one {
      border: 3px solid var(--ink);
      padding: 1rem 1.25rem;
      max-width: 46rem;
    }
    .big {
      font-size: 2.6rem;
      font-weight: 700;
      line-height: 1;
      margin: 0;
    }
    .what {
      font-size: 1.2rem;
      margin: 0.25rem 0 0.5rem;
    }
    .reason {
      font: inherit;
      min-height: 32px;
      width: 16rem;
      max-width: 100%;
      box-sizing: border-box;
      border: 1px solid var(--line-strong);
      background: var(--raised);
      color: var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CountWalkPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly house = inject(House);
  readonly id = input.required<string>();
  protected readonly walk = live(
    ['stores'],
    () => this.api.get('/api/count-walks/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly entering = doing();
  protected readonly weighing = doing();
  protected readonly booking = doing();
  protected readonly written = signal('');
  protected readonly gross = signal(false);
  protected readonly fromBalance = signal(false);
  protected readonly instrument = signal('');
  protected readonly again = signal('');
  private readonly skipped = signal<readonly string[]>([]);
  protected readonly reasons = signal<Readonly<Record<string, string>>>({});
  private readonly field = viewChild<ElementRef<HTMLInputElement>>('figure');
  protected readonly amount = formatAmount;
  protected readonly sayBooking = sayBooking;

  protected readonly done = computed(() => countedLines(this.walk.value()?.lines ?? []));
  protected readonly differing = computed(() => differingLines(this.walk.value()?.lines ?? []));
  protected readonly current = computed(() => nextJar(this.walk.value()?.lines ?? [], this.again(), this.skipped()));
  /** Where one stands: the jar, not its figures, so that a change elsewhere doesn't empty the field. */
  private readonly at = computed(() => this.current()?.row.id ?? '');
  protected readonly echo = computed(() => {
    const line = this.current();
    if (!line || this.written().trim() === '') return '';
    const reading = readAmount(this.written(), line.row.measure, {
      allowNothing: true,
      ...this.house.measuring(line.bulkDensityGPerMl),
    });
    if (!reading.ok) return reading.sentence;
    const net = reading.amount - (this.gross() ? (line.tareMg ?? 0) : 0);
    return this.gross() || reading.note
      ? `${formatAmount(Math.max(0, net), line.row.measure)} net${reading.note ? ` (${reading.note})` : ''}`
      : '';
  });

  constructor() {
    effect(() => {
      this.at();
      const line = untracked(() => this.current());
      this.written.set('');
      this.instrument.set('');
      this.gross.set(line?.tareMg !== null && line?.tareMg !== undefined);
      setTimeout(() => this.field()?.nativeElement.focus());
    });
  }

  protected enter(line: Line): void {
    this.entering.run(
      this.api.post(
        '/api/count-walks/{id}/entries',
        {
          id: newId(),
          stockLotId: line.row.id,
          written: this.written(),
          gross: this.gross() && line.row.measure === 'weight',
          seenOnHand: line.row.onHand,
          fromBalance: this.fromBalance(),
        },
        this.id(),
      ),
      () => {
        this.again.set('');
        this.walk.reload();
      },
    );
  }

  protected readBalance(line: Line): void {
    this.weighing.run(this.api.post('/api/balance/reading', { what: 'jar', stockLotId: line.row.id }), (reading) => {
      this.instrument.set(
        reading.overload
          ? `${reading.instrument}: too heavy for it. Weigh it in parts.`
          : `${reading.instrument}, settled after ${(reading.settledMs / 1000).toFixed(1)} s.`,
      );
      if (reading.overload) return;
      this.gross.set(line.tareMg !== null);
      this.written.set(`${reading.weightG} g`);
      this.fromBalance.set(true);
    });
  }

  protected skip(line: Line): void {
    this.again.set('');
    this.skipped.update((s) => [...s, line.row.id]);
  }

  protected reason(jarId: string, words: string): void {
    this.reasons.update((r) => ({ ...r, [jarId]: words }));
  }

  protected book(): void {
    const reasons = this.differing().map((l) => ({
      stockLotId: l.row.id,
      note: this.reasons()[l.row.id] ?? l.reasons[0] ?? '',
    }));
    this.booking.run(
      this.api.post('/api/count-walks/{id}/booking', { id: newId(), reasons }, this.id()),
      () => void this.router.navigateByUrl('/stores'),
    );
  }
}
