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
import { Router, RouterLink } from '@angular/router';
import type { LotDetail, RunEntryView } from '@vestigia/contract';
import {
  describeDifference,
  formatAmount,
  formatMoney,
  formatWeight,
  layOutPlaced,
  STRAIN_WORDS,
  sayCourse,
  sayMinutes,
} from '@vestigia/core';
import { of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { Margin } from '../../shell/margin';
import { PlacedPicture } from '../../ui/placed-picture';
import { Amount } from '../../ui/amount';
import { FigureValue } from '../../ui/figure-value';
import { HeatChart } from '../../ui/heat-chart';
import { LOT_STATE_WORDS, lotStateClass } from '../../ui/lot-states';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { ThenAndNow } from '../../ui/then-and-now';
import { StepBaths } from '../../ui/step-baths';
import { Thread } from '../../ui/thread';
import { When } from '../../ui/when';
import { entryWords } from '../../ui/entry-words';

/** One lot, whole: its thread, what was planned and done at each station, what it was made from, how it was judged. */
@Component({
  selector: 'vs-lot',
  imports: [
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    Amount,
    FigureValue,
    HeatChart,
    PlacedPicture,
    RefusalNote,
    StepBaths,
    Swatch,
    ThenAndNow,
    Thread,
    When,
  ],
  template: ` <vs-refusal [problem]="lot.problem()" />
    @if (lot.value(); as l) {
      <div class="head">
        <div>
          <h1>
            {{ l.summary.tag }} ·
            <a [routerLink]="['/colourways', l.summary.colourway.id]">{{ l.summary.colourway.name }}</a>
          </h1>
          <p>
            <span [class]="stateClass(l)">{{ stateWords(l) }}</span> {{ sizeWords(l) }} ·
            <a [routerLink]="['/recipes', l.recipe.versionId]">{{ l.recipe.name }}, version {{ l.recipe.number }}</a>
            @if (l.summary.reorderOf; as r) {
              · again of <a [routerLink]="['/lots', r.id]">{{ r.tag }}</a>
            }
            @for (a of l.again; track a.id) {
              · dyed again as <a [routerLink]="['/lots', a.id]">{{ a.tag }}</a>
            }
          </p>
        </div>
        <div class="actions">
          @switch (l.summary.state) {
            @case ('released') {
              <a class="act main" routerLink="/lots/new" [queryParams]="{ again: l.summary.id }">Dye again</a>
            }
            @case ('toJudge') {
              <a class="act main" [routerLink]="['/judge', l.summary.id]">Judge it</a>
            }
            @case ('held') {
              <a class="act main" [routerLink]="['/judge', l.summary.id]">Judge it</a>
            }
            @case ('planned') {
              <a class="act main" [routerLink]="['/bench', l.summary.id]">Begin at the bench</a>
            }
            @case ('inWork') {
              <a class="act main" [routerLink]="['/bench', l.summary.id]">Go to the bench</a>
            }
          }
          <a class="act" [routerLink]="['/bench/card', l.summary.id]">Bench card</a>
        </div>
      </div>
      <vs-thread
        [stations]="l.summary.stations"
        [undyed]="l.summary.undyed"
        [master]="l.summary.master"
        [result]="l.summary.result"
        [batches]="l.plan.batches.length"
        [large]="true"
        [selected]="selected()"
        (picked)="selected.set($event)"
      />
      @if (station(); as s) {
        <section class="station" aria-live="polite">
          <h2>
            {{ s.step.title }} <span class="soft">{{ s.state }}</span>
          </h2>
          @if (s.step.forWhom) {
            <p>
              <strong>{{ s.step.forWhom }}</strong>
            </p>
          }
          <p>{{ s.step.instruction }}</p>
          <p>
            Planned: <strong>{{ s.planned }}</strong>
          </p>
          @if (s.step.baths.length > 0) {
            <vs-step-baths [baths]="s.step.baths" />
          }
          @if (curve().length > 1) {
            <vs-heat-chart [step]="s.step" [readings]="curve()" />
            <p class="small soft">
              {{ probed.value()?.simulated ? 'By the simulated bath probe' : 'By the bath probe' }}; planned dashed.
            </p>
          }
          @for (d of s.deviations; track $index) {
            <p class="knot">Otherwise than planned: {{ d }}</p>
          }
          @if (s.step.weighings.length > 0) {
            <table class="ledger">
              <thead>
                <tr>
                  <th>Batch</th>
                  <th>Material</th>
                  <th class="number">Planned</th>
                  <th class="number">Weighed</th>
                  <th>From</th>
                </tr>
              </thead>
              <tbody>
                @for (w of s.weighings; track $index) {
                  <tr>
                    <td>{{ w.batch }}</td>
                    <td>{{ w.name }}</td>
                    <td class="number"><vs-figure [figure]="w.target" [name]="w.name" /></td>
                    <td class="number">{{ w.weighed }}</td>
                    <td>{{ w.from }}</td>
                  </tr>
                }
              </tbody>
            </table>
          }
          @if (s.entries.length > 0) {
            <table class="ledger">
              <tbody>
                @for (e of s.entries; track e.id) {
                  <tr [class.struck]="e.struck">
                    <td class="small">{{ e.at | when: 'moment' }}</td>
                    <td>{{ e.words }}</td>
                    <td class="small">{{ e.by }}</td>
                  </tr>
                }
              </tbody>
            </table>
          } @else {
            <p class="soft">Nothing recorded here yet.</p>
          }
        </section>
      }
      @if (placed(); as p) {
        <h2>Where the colour goes</h2>
        <vs-placed-picture [plan]="p.plan" />
        <p>
          @for (z of p.measured; track z.title) {
            {{ z.title }}: {{ z.mlPerPiece }} ml a piece, {{ z.totalMl }} ml for all.
          }
          Every piece alike:
          <a [routerLink]="['/recipes', l.recipe.versionId, 'placed']">lay them on it at true scale</a>.
        </p>
      }
      <h2>How it came out</h2>
      <div class="mounts">
        <figure>
          <vs-swatch [lab]="l.summary.master" [width]="7.5" label="master" />
          <figcaption>Master</figcaption>
        </figure>
        @for (r of shownReadings(); track r.id) {
          <figure>
            <vs-swatch [lab]="r.under" [state]="r.state" [width]="6" [label]="'batch ' + r.batch" />
            <figcaption>Batch {{ r.batch }}, {{ r.state }}<br />{{ r.words }}</figcaption>
          </figure>
        }
        @if (shownReadings().length === 0) {
          <p>No colour reading yet.</p>
        }
      </div>
      @for (v of l.verdicts; track v.id) {
        <p>
          <strong>{{ v.verdict === 'pass' ? 'Passed' : v.verdict === 'hold' ? 'Held' : 'Refused' }}</strong>
          {{ v.at | when: 'moment' }} by {{ v.by.name }}
          @if (v.toMaster !== null) {
            · ΔE00 {{ v.toMaster.toFixed(2) }} to the master
          }
          @if (v.toFirst !== null) {
            · {{ v.toFirst.toFixed(2) }} to the first lot
          }
          @if (v.betweenBatches !== null && l.plan.batches.length > 1) {
            · {{ v.betweenBatches.toFixed(2) }} between batches
          }
          @if (v.reason) {
            · {{ v.reason }}
          }
        </p>
      }
      @if (l.checks.length > 0) {
        <h2>Gone past when it was agreed</h2>
        <ul>
          @for (c of l.checks; track c.key) {
            <li>
              {{ c.sentence }} <strong>{{ c.reason }}</strong>
            </li>
          }
        </ul>
      }
      @if (l.factors.length > 0) {
        <h2>Then and now, when it was agreed</h2>
        <vs-then-and-now [factors]="l.factors" />
      }
      <h2>What is in it</h2>
      @if (l.madeFrom.length === 0) {
        <p class="soft">Nothing weighed out yet.</p>
      } @else {
        <table class="ledger">
          <thead>
            <tr>
              <th>Stock lot</th>
              <th>Material</th>
              <th class="number">Taken</th>
            </tr>
          </thead>
          <tbody>
            @for (m of l.madeFrom; track m.stockLotId) {
              <tr>
                <td>
                  <a [routerLink]="['/stores', m.stockLotId]"
                    ><strong>{{ m.tag }}</strong></a
                  >
                </td>
                <td>{{ m.material }}</td>
                <td class="number">{{ m.amount | amount: m.measure }}</td>
              </tr>
            }
          </tbody>
        </table>
        @if (cost.value(); as c) {
          <p>
            Materials cost {{ money(c.fifoMinor, c.currency) }} first in first out,
            {{ money(c.averageMinor, c.currency) }} at average:
            {{ money(perPiece(c.fifoMinor, l.summary.pieces), c.currency) }} a piece.
          </p>
        } @else {
          <button class="plain" type="button" (click)="costed.set(true)">What the materials cost</button>
        }
      }
      <dl class="facts">
        <dt>Water</dt>
        <dd>
          {{
            l.water
              ? l.water.name +
                (l.water.ph === null ? '' : ', pH ' + l.water.ph) +
                (l.water.hardnessDh === null ? '' : ', ' + l.water.hardnessDh + ' °dH')
              : 'not said'
          }}
        </dd>
        <dt>Pots</dt>
        <dd>
          @for (b of l.plan.batches; track b.number) {
            batch {{ b.number }} in {{ b.vesselName }} ({{ b.metal }}),
            <vs-figure [figure]="b.liquor" [name]="'liquor, batch ' + b.number" />;
          }
        </dd>
        @if (l.note) {
          <dt>Note</dt>
          <dd>{{ l.note }}</dd>
        }
      </dl>
      <details>
        <summary>Rehearse it</summary>
        <p>
          Runs this lot against simulated pots and instruments: to learn the day, or to try its timing. No stock moves
          and nothing is recorded.
        </p>
        <form (ngSubmit)="rehearse()">
          <mat-form-field
            ><mat-label>How fast</mat-label
            ><select matNativeControl name="speed" [(ngModel)]="speed">
              @for (s of speeds; track s) {
                <option [ngValue]="s">{{ s }} times</option>
              }
            </select></mat-form-field
          ><vs-refusal [problem]="rehearsing.problem()" /><button
            class="act"
            type="submit"
            [disabled]="rehearsing.busy()"
          >
            Begin the rehearsal
          </button>
        </form>
      </details>
      @if (l.summary.state === 'planned' || l.summary.state === 'inWork') {
        <details>
          <summary>Call the lot off</summary>
          <form (ngSubmit)="cancel()">
            <mat-form-field><mat-label>Why</mat-label><input matInput name="why" [(ngModel)]="why" /></mat-form-field
            ><vs-refusal [problem]="action.problem()" /><button class="act" type="submit" [disabled]="action.busy()">
              Call it off, and free its stock
            </button>
          </form>
        </details>
      }
    }`,
  styles: `
    .station {
      border-left: 6px solid var(--ink);
      padding: 0 0 0.25rem 1.25rem;
      margin: 0.75rem 0;
    }
    .station h2 {
      margin-top: 0.5rem;
    }
    .knot {
      font-weight: 700;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LotPage {
  private readonly api = inject(ApiClient);
  private readonly margin = inject(Margin);
  readonly id = input.required<string>();
  protected readonly action = doing();
  protected readonly why = signal('');
  protected readonly rehearsing = doing();
  protected readonly speeds = [1, 10, 30, 60, 120] as const;
  protected readonly speed = signal(60);
  private readonly router = inject(Router);
  /** Worked out only when asked for: it goes through the whole history of every material in the lot. */
  protected readonly costed = signal(false);
  private readonly recipe = live(
    ['recipes'],
    () => {
      const id = this.lot.value()?.recipe.versionId;
      return id ? this.api.get('/api/recipe-versions/{id}', { id }) : of(undefined);
    },
    () => this.lot.value()?.recipe.versionId,
  );
  protected readonly placed = computed(() => {
    const [plan, pieces] = [this.recipe.value()?.body.placed, this.lot.value()?.plan.pieces];
    return plan && pieces
      ? { plan, measured: layOutPlaced(plan, pieces).zones.filter((z) => z.totalMl !== null) }
      : undefined;
  });
  protected readonly cost = live(
    ['lots'],
    () => (this.costed() ? this.api.get('/api/lots/{id}/cost', { id: this.id() }) : of(undefined)),
    () => `${this.id()} ${this.costed()}`,
  );
  /** What a probe read at the station looked at, where one hung in its bath. */
  protected readonly probed = live(
    ['lots'],
    () => {
      const s = this.station();
      return s && s.step.usesBath && s.began
        ? this.api.get('/api/lots/{id}/probe', { id: this.id(), query: { step: String(s.step.index) } })
        : of(undefined);
    },
    () => `${this.id()} ${this.station()?.step.index} ${this.station()?.began}`,
  );
  protected readonly curve = computed(() => {
    const beganMs = Date.parse(this.station()?.began ?? '');
    return (this.probed.value()?.points ?? []).map(([ms, temperatureC]) => ({
      minute: (ms - beganMs) / 60_000,
      temperatureC,
    }));
  });
  protected readonly money = formatMoney;
  protected readonly perPiece = (minor: number, pieces: number): number => Math.round(minor / Math.max(1, pieces));
  protected readonly lot = live(
    ['lots'],
    () => this.api.get('/api/lots/{id}', { id: this.id() }),
    () => this.id(),
  );
  /** Opens at the station in work, or at the first that went otherwise than planned. */
  protected readonly selected = linkedSignal<LotDetail | undefined, number | undefined>({
    source: this.lot.value,
    computation: (l, before) =>
      before?.value !== undefined && before.source?.summary.id === l?.summary.id
        ? before.value
        : (l?.summary.next?.index ?? l?.deviations[0]?.stepIndex),
  });

  protected readonly station = computed(() => {
    const l = this.lot.value();
    const index = this.selected();
    const step = index === undefined ? undefined : l?.plan.steps[index];
    if (!l || !step) return undefined;
    const replaced = new Set(l.entries.map((e) => e.replacesId));
    const its = l.entries.filter((e) => e.stepIndex === step.index);
    const weighed = its.filter((e) => e.weighing && !replaced.has(e.id));
    const tag = (jarId: string): string => l.jars.find((j) => j.id === jarId)?.tag ?? '';
    return {
      step,
      began: l.entries.filter((e) => e.stepIndex === step.index && e.kind === 'start').at(-1)?.at,
      planned: [
        step.temperatureC === undefined ? '' : `${step.temperatureC} °C`,
        sayCourse(step) || sayMinutes(step.durationMin),
        step.targetPh ? `pH ${step.targetPh.low} to ${step.targetPh.high}` : '',
        step.strain ? `strain ${STRAIN_WORDS[step.strain]}` : '',
        step.finishedBy === 'eye' ? 'done when it looks done' : step.finishedBy === 'both' ? 'by clock and eye' : '',
      ]
        .filter((w) => w !== '')
        .join(', '),
      state: { waiting: 'to come', running: 'now', paused: 'paused', done: 'done', skipped: 'skipped' }[
        l.summary.stations[step.index]?.state ?? 'waiting'
      ],
      deviations: l.deviations.filter((d) => d.stepIndex === step.index).map((d) => d.words),
      weighings: step.weighings.map((w) => {
        const mine = weighed.filter((e) => e.weighing?.batch === w.batch && e.weighing.materialId === w.materialId);
        const taken = mine.reduce((sum, e) => sum + (e.weighing?.amount ?? 0), 0);
        return {
          batch: w.batch,
          name: w.materialName,
          target: w.target,
          weighed: mine.length === 0 ? '–' : formatAmount(taken, w.measure),
          from: mine.map((e) => tag(e.weighing?.stockLotId ?? '')).join(', '),
        };
      }),
      entries: its.map((e: RunEntryView) => ({
        id: e.id,
        at: e.at,
        by: e.by.name,
        words: entryWords(e, l),
        struck: replaced.has(e.id),
      })),
    };
  });

  protected readonly shownReadings = computed(() => {
    const l = this.lot.value();
    if (!l) return [];
    const replaced = new Set(l.readings.map((r) => r.replacesId));
    return l.readings
      .filter((r) => !replaced.has(r.id))
      .map((r) => ({
        ...r,
        under: { ...r.lab, illuminant: r.illuminant, observer: r.observer },
        words:
          r.state === 'wet'
            ? 'still wet'
            : `ΔE00 ${describeDifference(l.summary.master, r.lab).deltaE.toFixed(2)}, ${describeDifference(l.summary.master, r.lab).summary}`,
      }));
  });

  constructor() {
    effect(() => {
      const l = this.lot.value();
      if (!l) return;
      const knots = l.deviations.map((d) => `${l.plan.steps[d.stepIndex]?.title}: ${d.words}`);
      this.margin.notes.set([
        ...(knots.length > 0 ? [{ title: 'Otherwise than planned', lines: knots }] : []),
        {
          title: 'History',
          lines: [
            `Agreed ${new Date(l.summary.at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })} by ${l.summary.by.name}`,
            ...l.plan.cautions,
          ],
        },
      ]);
    });
  }

  protected rehearse(): void {
    this.rehearsing.run(
      this.api.post('/api/rehearsals', { id: newId(), lotId: this.id(), speed: this.speed() }),
      ({ id }) => void this.router.navigate(['/bench/rehearsal', id]),
    );
  }

  protected cancel(): void {
    const body = {
      id: newId(),
      stepIndex: this.lot.value()?.summary.next?.index ?? 0,
      kind: 'cancel' as const,
      replacesId: null,
      temperatureC: null,
      text: this.why(),
      weighing: null,
    };
    this.action.run(this.api.post('/api/lots/{id}/entries', body, this.id()), () => this.lot.reload());
  }

  protected readonly sizeWords = (l: LotDetail): string => {
    const { groups } = l.plan;
    if (new Set(groups.map((g) => g.baseId)).size < 2)
      return `${l.summary.pieces} pieces of ${formatWeight(l.summary.pieceWeightG)} · ${l.base.name}`;
    return [...new Set(groups.map((g) => g.baseId))]
      .map((id) => {
        const its = groups.filter((g) => g.baseId === id);
        return `${its.reduce((sum, g) => sum + g.pieces, 0)} of ${formatWeight(its[0]?.pieceWeightG ?? 0)} ${its[0]?.baseName ?? ''}`;
      })
      .join(', ');
  };
  protected readonly stateWords = (l: LotDetail): string => LOT_STATE_WORDS[l.summary.state];
  protected readonly stateClass = (l: LotDetail): string => lotStateClass(l.summary.state);
}
