import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import { STRIP_FACTOR_WORDS, sayKnotTag } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { FigureValue } from '../../ui/figure-value';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { When } from '../../ui/when';
import { KnotMark } from './knot-mark';

/** One strip trial: what each strip gets and how it is marked, what was read, how they rank, and what became of the best. */
@Component({
  selector: 'vs-strip-trial',
  imports: [
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    FigureValue,
    KnotMark,
    RefusalNote,
    Swatch,
    When,
  ],
  template: ` <vs-refusal [problem]="trial.problem()" />
    @if (trial.value(); as t) {
      <div class="head">
        <div>
          <h1>{{ t.summary.name }}</h1>
          <p class="soft">
            {{ t.summary.strips }} strips of {{ t.base.name }}, {{ t.totalG }} g together ·
            {{ factorWords[t.summary.factor] }} varies ·
            <a [routerLink]="['/recipes', t.summary.recipeVersionId]">{{ t.summary.recipe }}</a>
            @if (t.water) {
              · {{ t.water }}
            }
          </p>
        </div>
      </div>
      @if (t.note) {
        <p>{{ t.note }}</p>
      }
      @if (strips().length > 0) {
        <div class="mounts">
          @for (s of strips(); track s.number) {
            <figure>
              <vs-swatch [lab]="s.under" [width]="5.5" [label]="'strip ' + s.number" />
              <figcaption>
                {{ s.rank }}. Strip {{ s.number }}: {{ s.label }}<br />depth {{ s.depth.toFixed(1) }}, hue
                {{ s.hue.toFixed(0) }}°
              </figcaption>
            </figure>
          }
        </div>
        <p class="small">
          Deepest first: depth is ΔE00 from the undyed base, under the light the base was read in. A wet strip is not
          the colour.
        </p>
      } @else {
        <p>No strip has been read yet. Cut them, tie the marks, dye them together, dry them, then read each.</p>
      }
      <h2>The strips</h2>
      <div class="scroller">
        <table class="ledger">
          <thead>
            <tr>
              <th>Strip</th>
              <th>Gets</th>
              <th>Its mark, from the loop</th>
              <th class="number">Dry</th>
              <th>Weighed for it</th>
            </tr>
          </thead>
          <tbody>
            @for (s of t.laid; track s.number) {
              <tr>
                <td>
                  <strong>{{ s.number }}</strong>
                </td>
                <td>{{ s.label }}</td>
                <td>
                  <vs-knot-mark [groups]="s.knots" /><span class="small">{{ knots(s.knots) }}</span>
                </td>
                <td class="number"><vs-figure [figure]="s.weight" [name]="'strip ' + s.number" /></td>
                <td>
                  @for (w of s.weighings; track $index) {
                    <span class="item"
                      >{{ w.materialName }}
                      <vs-figure [figure]="w.target" [name]="w.materialName + ', strip ' + s.number"
                    /></span>
                  }
                  @for (a of advice(s.weighings); track a) {
                    <br /><span class="small">{{ a }}</span>
                  }
                </td>
              </tr>
            }
          </tbody>
        </table>
      </div>
      <p class="small">
        Marks are knots in an undyed cord: they survive the pot and can be felt. Knots of a group touch; groups stand a
        thumb’s width apart; begin to count at the loop.
      </p>
      <h2>Read a strip</h2>
      <form (ngSubmit)="read()">
        <div class="fields">
          <mat-form-field
            ><mat-label>Strip</mat-label
            ><select matNativeControl name="number" [(ngModel)]="number">
              @for (s of t.laid; track s.number) {
                <option [ngValue]="s.number">{{ s.number }}: {{ s.label }}</option>
              }
            </select></mat-form-field
          >
          <mat-form-field
            ><mat-label>L*</mat-label><input matInput type="number" step="any" name="L" [(ngModel)]="L"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>a*</mat-label><input matInput type="number" step="any" name="a" [(ngModel)]="a"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>b*</mat-label><input matInput type="number" step="any" name="b" [(ngModel)]="b"
          /></mat-form-field>
          <mat-form-field><mat-label>Note</mat-label><input matInput name="note" [(ngModel)]="note" /></mat-form-field>
        </div>
        <vs-refusal [problem]="reading.problem()" />
        <div class="actions">
          <button class="act main" type="submit" [disabled]="reading.busy()">Write it down</button
          ><span class="soft small"
            >{{ t.base.undyed.illuminant }}, {{ t.base.undyed.observer }}°{{
              readBefore() ? '; it corrects the reading before it' : ''
            }}</span
          >
        </div>
      </form>
      @if (t.readings.length > 0) {
        <details>
          <summary>Every reading</summary>
          <table class="ledger">
            <tbody>
              @for (r of t.readings; track r.id) {
                <tr [class.struck]="isReplaced(r.id)">
                  <td>strip {{ r.number }}</td>
                  <td class="number">{{ r.lab.L }} / {{ r.lab.a }} / {{ r.lab.b }}</td>
                  <td>{{ r.note }}</td>
                  <td class="small">{{ r.at | when: 'moment' }}, {{ r.by.name }}</td>
                </tr>
              }
            </tbody>
          </table>
        </details>
        <h2>Make a recipe of the best</h2>
        <form (ngSubmit)="promote()">
          <div class="fields">
            <mat-form-field
              ><mat-label>This strip</mat-label
              ><select matNativeControl name="best" [(ngModel)]="best">
                @for (s of strips(); track s.number) {
                  <option [ngValue]="s.number">{{ s.number }}: {{ s.label }}</option>
                }
              </select></mat-form-field
            >
            <mat-form-field
              ><mat-label>becomes</mat-label
              ><select matNativeControl name="as" [(ngModel)]="becomes">
                <option value="version">the next version of the recipe</option>
                <option value="recipe">a recipe of its own</option>
              </select></mat-form-field
            >
            @if (becomes() === 'recipe') {
              <mat-form-field
                ><mat-label>Called</mat-label><input matInput name="called" [(ngModel)]="called"
              /></mat-form-field>
            }
          </div>
          <vs-refusal [problem]="promoting.problem()" />
          <div class="actions">
            <button class="act" type="submit" [disabled]="promoting.busy()">Make it a trial recipe</button>
          </div>
        </form>
      }
      @if (t.promoted.length > 0) {
        <p class="refs">
          Became:
          @for (p of t.promoted; track p.versionId) {
            <a [routerLink]="['/recipes', p.versionId]">strip {{ p.number }}, {{ p.words }}</a>
          }
        </p>
      }
    }`,
  styles: `
    .item {
      white-space: nowrap;
      margin-right: 0.9rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StripTrialPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  readonly id = input.required<string>();
  protected readonly factorWords = STRIP_FACTOR_WORDS;
  protected readonly knots = sayKnotTag;
  protected readonly trial = live(
    ['recipes'],
    () => this.api.get('/api/strip-trials/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly reading = doing();
  protected readonly promoting = doing();
  /** The next that nobody has read. */
  protected readonly number = linkedSignal(() => {
    const t = this.trial.value();
    return t?.laid.find((s) => !t.readings.some((r) => r.number === s.number))?.number ?? 1;
  });
  protected readonly L = signal<number | null>(null);
  protected readonly a = signal<number | null>(null);
  protected readonly b = signal<number | null>(null);
  protected readonly note = signal('');
  protected readonly best = linkedSignal(() => this.trial.value()?.ranked[0]?.number ?? 1);
  protected readonly becomes = signal<'version' | 'recipe'>('version');
  protected readonly called = signal('');
  private readonly replaced = computed(() => new Set((this.trial.value()?.readings ?? []).map((r) => r.replacesId)));
  protected readonly isReplaced = (id: string): boolean => this.replaced().has(id);
  protected readonly readBefore = computed(() =>
    this.trial
      .value()
      ?.readings.filter((r) => r.number === this.number() && !this.replaced().has(r.id))
      .at(-1),
  );
  protected readonly strips = computed(() => {
    const t = this.trial.value();
    return (t?.ranked ?? []).flatMap((ranked, i) => {
      const r = t?.readings.filter((o) => o.number === ranked.number && !this.replaced().has(o.id)).at(-1);
      return r
        ? [
            {
              rank: i + 1,
              number: ranked.number,
              depth: ranked.depth,
              hue: ranked.hueDegrees,
              label: t?.laid[ranked.number - 1]?.label ?? '',
              under: { ...r.lab, illuminant: r.illuminant, observer: r.observer },
            },
          ]
        : [];
    });
  });

  protected readonly advice = (weighings: readonly { materialName: string; advice: readonly string[] }[]): string[] =>
    weighings.flatMap((w) => w.advice.map((line) => `${w.materialName}: ${line}`));

  protected read(): void {
    const t = this.trial.value();
    if (!t) return;
    const { illuminant, observer } = t.base.undyed;
    const body = {
      id: newId(),
      number: this.number(),
      lab: { L: this.L() as number, a: this.a() as number, b: this.b() as number },
      illuminant,
      observer,
      note: this.note(),
      replacesId: this.readBefore()?.id ?? null,
    };
    this.reading.run(this.api.post('/api/strip-trials/{id}/readings', body, this.id()), () => {
      for (const field of [this.L, this.a, this.b]) field.set(null);
      this.note.set('');
      this.trial.reload();
    });
  }

  protected promote(): void {
    const body = {
      id: newId(),
      number: this.best(),
      name: this.becomes() === 'recipe' ? this.called() : null,
      recipeId: newId(),
    };
    this.promoting.run(
      this.api.post('/api/strip-trials/{id}/promotions', body, this.id()),
      ({ id }) => void this.router.navigate(['/recipes', id]),
    );
  }
}
