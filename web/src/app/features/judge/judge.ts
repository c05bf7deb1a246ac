import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { LabUnder, ReadingView } from '@vestigia/contract';
import type { ReadingState, Verdict } from '@vestigia/core';
import {
  READING_STATES,
  ciede2000,
  describeColour,
  describeDifference,
  lotColour,
  sameConditions,
  settledReadings,
  standingEntries,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { Margin } from '../../shell/margin';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { When } from '../../ui/when';

const VERDICT_WORDS: Readonly<Record<Verdict, string>> = { pass: 'Pass it', hold: 'Hold it', refuse: 'Refuse it' };

/** A lot beside its master on neutral grey: readings, the difference in a dyer's words, the verdict. */
@Component({
  selector: 'vs-judge',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, Swatch, When],
  template: ` <vs-refusal [problem]="lot.problem()" />
    @if (lot.value(); as l) {
      <div class="head">
        <h1>
          Judge <a [routerLink]="['/lots', l.summary.id]">{{ l.summary.tag }}</a><span class="soft">
            · {{ l.summary.colourway.name }}</span
          >
        </h1>
      </div>
      <div class="mounts pair">
        <figure>
          <vs-swatch [lab]="l.summary.master" [width]="13" [height]="90" label="master" />
          <figcaption>Master · {{ words(l.summary.master) }}</figcaption>
        </figure>
        @if (shown(); as s) {
          <figure>
            <vs-swatch [lab]="s.under" [state]="s.state" [width]="13" [height]="90" [label]="l.summary.tag" />
            <figcaption>Batch {{ s.batch }}, {{ s.state }} · {{ words(s.under) }}</figcaption>
          </figure>
        }
        @if (l.first?.colour; as first) {
          <figure>
            <vs-swatch [lab]="first" [width]="8" [height]="90" label="first lot" />
            <figcaption>{{ l.first?.tag }}, the first lot</figcaption>
          </figure>
        }
        <figure>
          <vs-swatch [lab]="l.summary.undyed" [width]="4" [height]="90" label="undyed base" />
          <figcaption>undyed</figcaption>
        </figure>
      </div>
      @if (shown(); as s) {
        @if (s.state === 'wet') {
          <p class="wet">
            <strong>Still wet — don’t judge yet.</strong> A wet piece looks deeper than it is; take a reading when it is
            dry.
          </p>
        }
        <table class="ledger split">
          <thead>
            <tr>
              <th>Batch {{ s.batch }}, {{ s.state }}, against</th>
              <th class="number">ΔE<sub>00</sub></th>
              <th>Lightness</th>
              <th>Chroma</th>
              <th>Hue</th>
            </tr>
          </thead>
          <tbody>
            @for (d of differences(); track d.against) {
              <tr>
                <td>{{ d.against }}</td>
                <td class="number">
                  <strong class="de">{{ d.words.deltaE.toFixed(2) }}</strong>
                  @if (d.tolerance !== undefined) {
                    <br /><span class="small"
                      >{{ d.words.deltaE <= d.tolerance ? 'within' : 'beyond' }} {{ d.tolerance }}</span
                    >
                  }
                </td>
                <td>
                  {{ d.words.lightness.words }}<br /><span class="small soft">{{
                    signed(d.words.lightness.value)
                  }}</span>
                </td>
                <td>
                  {{ d.words.chroma.words }}<br /><span class="small soft">{{ signed(d.words.chroma.value) }}</span>
                </td>
                <td>
                  {{ d.words.hue.words }}<br /><span class="small soft">{{ signed(d.words.hue.value) }}</span>
                </td>
              </tr>
            }
          </tbody>
        </table>
      }
      <div class="two">
        <section class="readings">
          <h2>Readings</h2>
          <table class="ledger">
            <tbody>
              @for (r of all(); track r.id) {
                <tr [class.struck]="r.struck">
                  <td>
                    <button
                      class="plain"
                      type="button"
                      [attr.aria-pressed]="shown()?.id === r.id"
                      [disabled]="r.struck"
                      (click)="chosenId.set(r.id)"
                    >
                      Batch {{ r.batch }}, {{ r.state }}
                    </button>
                  </td>
                  <td class="number">{{ r.lab.L }} / {{ r.lab.a }} / {{ r.lab.b }}</td>
                  <td class="number">{{ r.deltaE.toFixed(2) }}</td>
                  <td class="small" [title]="'read by ' + r.by.name">{{ r.at | when }}</td>
                  <td>
                    @if (!r.struck && open()) {
                      <button
                        class="plain small"
                        type="button"
                        (click)="replaces.set(r); batch.set(r.batch); state.set(r.state)"
                      >
                        Correct
                      </button>
                    }
                  </td>
                </tr>
              } @empty {
                <tr>
                  <td class="soft">None yet.</td>
                </tr>
              }
            </tbody>
          </table>
          <form (ngSubmit)="read()">
            <h3>{{ replaces() ? 'What should stand instead' : 'A new reading' }}</h3>
            <div class="fields lab">
              <mat-form-field
                ><mat-label>Batch</mat-label
                ><select matNativeControl name="batch" [(ngModel)]="batch">
                  @for (b of l.plan.batches; track b.number) {
                    <option [ngValue]="b.number">{{ b.number }}, {{ b.vesselName }}</option>
                  }
                </select></mat-form-field
              >
              <mat-form-field
                ><mat-label>The piece is</mat-label
                ><select matNativeControl name="state" [(ngModel)]="state">
                  @for (s of states; track s) {
                    <option [ngValue]="s">{{ s }}</option>
                  }
                </select></mat-form-field
              >
              <mat-form-field
                ><mat-label>L*</mat-label><input matInput type="number" step="0.01" name="L" [(ngModel)]="L"
              /></mat-form-field>
              <mat-form-field
                ><mat-label>a*</mat-label><input matInput type="number" step="0.01" name="a" [(ngModel)]="a"
              /></mat-form-field>
              <mat-form-field
                ><mat-label>b*</mat-label><input matInput type="number" step="0.01" name="b" [(ngModel)]="b"
              /></mat-form-field>
            </div>
            <p class="small soft">
              Under {{ l.summary.master.illuminant }}, {{ l.summary.master.observer }}° observer, as the master was.
            </p>
            <vs-refusal [problem]="reading.problem()" />
            <button class="act" type="submit" [disabled]="reading.busy()">Keep the reading</button>
            @if (replaces()) {
              <button class="plain" type="button" (click)="replaces.set(undefined)">Leave the old one</button>
            }
          </form>
        </section>
        <section>
          <h2>Verdict</h2>
          @for (v of l.verdicts; track v.id) {
            <p>
              <strong>{{ v.verdict === 'pass' ? 'Passed' : v.verdict === 'hold' ? 'Held' : 'Refused' }}</strong> by
              {{ v.by.name }}, {{ v.at | when: 'moment' }}
              @if (v.toMaster !== null) {
                , ΔE00 {{ v.toMaster.toFixed(2) }} to the master
              }
              @if (v.toFirst !== null) {
                , {{ v.toFirst.toFixed(2) }} to the first lot
              }
              . {{ v.reason }}
            </p>
          }
          @if (open()) {
            @if (whole(); as w) {
              <p>{{ w }}</p>
            }
            <mat-form-field
              ><mat-label>Reason</mat-label><textarea matInput rows="2" name="reason" [(ngModel)]="reason"></textarea>
            </mat-form-field>
            <vs-refusal [problem]="judging.problem()" />
            <div class="actions">
              <button class="act main" type="button" [disabled]="judging.busy()" (click)="give('pass')">
                {{ verdictWords.pass }}</button
              ><button class="act" type="button" [disabled]="judging.busy()" (click)="give('hold')">
                {{ verdictWords.hold }}</button
              ><button class="act" type="button" [disabled]="judging.busy()" (click)="give('refuse')">
                {{ verdictWords.refuse }}
              </button>
            </div>
          } @else {
            <p>
              The verdict stands.
              @if (l.summary.state === 'released') {
                <a routerLink="/lots/new" [queryParams]="{ again: l.summary.id }">Dye it again</a>
              }
            </p>
          }
        </section>
      </div>
    }`,
  styles: `
    .pair {
      gap: 0;
      padding: 2rem;
      align-items: flex-start;
    }
    .pair figcaption {
      margin-right: 1rem;
    }
    .pair figure {
      margin-right: 2px;
    }
    .readings td {
      white-space: nowrap;
    }
    .readings button {
      padding-left: 0;
    }
    .wet {
      border: 2px solid var(--ink);
      border-left-width: 10px;
      padding: 0.6rem 0.9rem;
    }
    .de {
      font-size: 1.7rem;
    }
    .two {
      display: grid;
      grid-template-columns: minmax(0, 1.7fr) minmax(0, 1fr);
      gap: 0 2.5rem;
    }
    .lab {
      grid-template-columns: repeat(auto-fit, minmax(min(7rem, 100%), 1fr));
    }
    @media (max-width: 68.75em) {
      .two {
        grid-template-columns: minmax(0, 1fr);
      }
    }
    .readings .ledger {
      display: block;
      overflow-x: auto;
    }
    vs-swatch {
      max-width: 100%;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JudgePage {
  private readonly api = inject(ApiClient);
  private readonly margin = inject(Margin);
  readonly id = input.required<string>();
  protected readonly states = READING_STATES;
  protected readonly verdictWords = VERDICT_WORDS;
  protected readonly words = describeColour;
  protected readonly lot = live(
    ['lots'],
    () => this.api.get('/api/lots/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly reading = doing();
  protected readonly judging = doing();
  protected readonly open = computed(
    () => !['released', 'refused', 'cancelled'].includes(this.lot.value()?.summary.state ?? ''),
  );

  protected readonly all = computed(() => {
    const l = this.lot.value();
    if (!l) return [];
    const standing = new Set(standingEntries(l.readings));
    return l.readings.map((r) => ({
      ...r,
      under: under(r),
      struck: !standing.has(r),
      deltaE: ciede2000(l.summary.master, r.lab, { kL: 1, kC: 1, kH: 1 }).deltaE,
    }));
  });
  private readonly standing = computed(() => this.all().filter((r) => !r.struck));
  protected readonly chosenId = signal('');
  /** The reading looked at: the one chosen, else the newest. */
  protected readonly shown = computed(
    () => this.standing().find((r) => r.id === this.chosenId()) ?? this.standing().at(-1),
  );

  protected readonly differences = computed(() => {
    const l = this.lot.value();
    const s = this.shown();
    if (!l || !s) return [];
    const toMaster = {
      against: 'the master',
      words: describeDifference(l.summary.master, s.lab),
      tolerance: l.toleranceDeltaE,
    };
    return l.first?.colour
      ? [
          toMaster,
          {
            against: `${l.first.tag}, the first lot`,
            words: describeDifference(l.first.colour, s.lab),
            tolerance: undefined,
          },
        ]
      : [toMaster];
  });

  /** The lot as a whole, when every batch has settled. */
  protected readonly whole = computed(() => {
    const l = this.lot.value();
    if (!l) return '';
    const settled = [...settledReadings(this.standing()).values()].filter((r) => sameConditions(r, l.summary.master));
    if (settled.length < l.plan.batches.length)
      return `${settled.length} of ${l.plan.batches.length} batches have a dry reading.`;
    const colour = lotColour(l.summary.master, settled);
    return `Furthest batch: ΔE00 ${colour.worstDeltaE.toFixed(2)}, tolerance ${l.toleranceDeltaE}.${settled.length > 1 ? ` Between batches: ${colour.betweenBatchesDeltaE.toFixed(2)}.` : ''}`;
  });

  protected readonly batch = linkedSignal(() => {
    const l = this.lot.value();
    const read = new Set(
      this.standing()
        .filter((r) => r.state !== 'wet')
        .map((r) => r.batch),
    );
    return l?.plan.batches.find((b) => !read.has(b.number))?.number ?? 1;
  });
  protected readonly state = signal<ReadingState>('dry');
  protected readonly L = signal<number | null>(null);
  protected readonly a = signal<number | null>(null);
  protected readonly b = signal<number | null>(null);
  protected readonly replaces = signal<ReadingView | undefined>(undefined);
  protected readonly reason = signal('');
  private readingId = newId();
  private verdictId = newId();

  constructor() {
    effect(() => {
      const l = this.lot.value();
      if (!l) return;
      const master = l.summary.master;
      this.margin.notes.set([
        {
          title: 'Judge it',
          lines: [
            'Dry, in daylight, beside the master, never under the kitchen lamp.',
            `Tolerance: ΔE00 ${l.toleranceDeltaE} under ${master.illuminant}/${master.observer}°.`,
          ],
        },
        {
          title: 'ΔE00',
          lines: [
            'CIEDE2000 with kL : kC : kH = 1 : 1 : 1. Its parts for lightness, chroma and hue stand beside it: above zero is paler, brighter, or further round the hue circle.',
          ],
        },
        ...(l.deviations.length > 0
          ? [
              {
                title: 'Otherwise than planned',
                lines: l.deviations.map((d) => `${l.plan.steps[d.stepIndex]?.title}: ${d.words}`),
              },
            ]
          : []),
      ]);
    });
  }

  protected read(): void {
    const master = this.lot.value()?.summary.master;
    if (!master) return;
    const body = {
      id: this.readingId,
      batch: this.batch(),
      state: this.state(),
      lab: { L: this.L() ?? NaN, a: this.a() ?? NaN, b: this.b() ?? NaN },
      illuminant: master.illuminant,
      observer: master.observer,
      note: '',
      replacesId: this.replaces()?.id ?? null,
    };
    this.reading.run(this.api.post('/api/lots/{id}/readings', body, this.id()), ({ id }) => {
      this.readingId = newId();
      this.chosenId.set(id);
      this.replaces.set(undefined);
      for (const field of [this.L, this.a, this.b]) field.set(null);
      this.lot.reload();
    });
  }

  protected give(verdict: Verdict): void {
    this.judging.run(
      this.api.post('/api/lots/{id}/verdicts', { id: this.verdictId, verdict, reason: this.reason() }, this.id()),
      () => {
        this.verdictId = newId();
        this.reason.set('');
        this.lot.reload();
      },
    );
  }

  protected readonly signed = (value: number): string => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(2)}`;
}

const under = ({ lab, illuminant, observer }: ReadingView): LabUnder => ({ ...lab, illuminant, observer });
