import { ChangeDetectionStrategy, Component, computed, inject, input, signal, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { LabUnder, StripTrialDetail } from '@vestigia/contract';
import type { Lab } from '@vestigia/core';
import { STRIP_FACTOR_LABELS, sayKnotTag, sayTaken } from '@vestigia/core';
import { offered } from '../../services/offered';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { ColourEntry } from '../../ui/colour-entry';
import { FigureValue } from '../../ui/figure-value';
import { newId } from '../../api/new-id';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { When } from '../../ui/when';
import { KnotMark } from './knot-mark';
import { StripLooks } from './strip-looks';
import { ScrollRegion } from '../../ui/scroll-region';
import { namesPage } from '../../services/page-title';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';
import { Kept } from '../../ui/kept';
import { Decimals } from '../../ui/decimals';

/**
 * One strip trial: what each strip gets and how it is marked, what was read, how they rank, and what became of the
 * best.
 */
@Component({
  selector: 'vs-strip-trial',
  imports: [
    Decimals,
    Kept,
    DraftOf,
    ActBar,
    ScrollRegion,
    ColourEntry,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    FigureValue,
    KnotMark,
    RefusalNote,
    StripLooks,
    Swatch,
    When,
  ],
  templateUrl: './strip-trial.html',
  styles: `
    .item {
      white-space: nowrap;
      margin-right: 0.9rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StripTrialPage {
  /** What its template says by what holds. */
  protected readonly says = {
    totalWeight: (totalG: string | number): string => $localize`, ${totalG} g together`,
    strip: (number: string | number): string => $localize`strip ${number}`,
    corrects: $localize`It corrects the reading before it.`,
  };

  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  readonly id = input.required<string>();
  protected readonly factorLabel = STRIP_FACTOR_LABELS;
  protected readonly knots = sayKnotTag;
  protected readonly trial = liveQuery(
    ['recipes'],
    () => this.api.get('/api/strip-trials/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly reading = pageAction();
  private readonly entry = viewChild(ColourEntry);
  protected readonly sayTaken = sayTaken;
  /** Where a ladder begins: the newest strip that was read, else the undyed base. */
  protected readonly wantedOf = (t: StripTrialDetail): LabUnder => {
    const r = t.readings.at(-1);
    const { illuminant, observer } = t.base.undyed;
    return r ? { ...r.lab, illuminant, observer } : t.base.undyed;
  };
  protected readonly promoting = pageAction();
  /** The next that nobody has read. */
  protected readonly number = offered(() => {
    const t = this.trial.value();
    return t?.layout.find((s) => !t.readings.some((r) => r.number === s.number))?.number ?? 1;
  });
  protected readonly note = signal('');
  protected readonly best = offered(() => this.trial.value()?.ranked[0]?.number ?? 1);
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
              label: t?.layout[ranked.number - 1]?.label ?? '',
              under: { ...r.lab, illuminant: r.illuminant, observer: r.observer },
            },
          ]
        : [];
    });
  });

  protected readonly advice = (weighings: readonly { materialName: string; advice: readonly string[] }[]): string[] =>
    weighings.flatMap((w) => w.advice.map((line) => `${w.materialName}: ${line}`));

  constructor() {
    namesPage(() => this.trial.value()?.summary.name);
  }

  protected read(): void {
    const [t, entry] = [this.trial.value(), this.entry()];
    if (!t || !entry) return;
    const { illuminant, observer } = t.base.undyed;
    const body = {
      id: newId(),
      number: this.number(),
      ...entry.value(),
      illuminant,
      observer,
      note: this.note(),
      replacesId: this.readBefore()?.id ?? null,
    };
    this.reading.run(this.api.post('/api/strip-trials/{id}/readings', body, this.id()), () => {
      entry.clear();
      this.note.set('');
      this.trial.reload();
    });
  }

  /** A strip that is liked becomes a version, and its colour waits for a name. */
  protected thisIsIt(number: number, { L, a, b }: Lab): void {
    const t = this.trial.value();
    if (!t) return;
    const name = (version: string): void =>
      void this.router.navigate(['/colourways/new'], {
        queryParams: { version, base: t.base.id, lab: `${L} ${a} ${b}` },
      });
    const known = t.promoted.find((p) => p.number === number);
    if (known) name(known.versionId);
    else
      this.promoting.run(
        this.api.post(
          '/api/strip-trials/{id}/promotions',
          { id: newId(), number, name: null, recipeId: newId() },
          this.id(),
        ),
        ({ id }) => name(id),
      );
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
