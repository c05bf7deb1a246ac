import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { LabUnder, Proposal } from '@vestigia/contract';
import type { BaseLot, DeltaEFormula, Dyeing, Figure, ReorderAsk, ReorderBounds, ReorderWay } from '@vestigia/core';
import {
  decimals,
  MATCH_CONDITIONS,
  MOST_CORRECTED_SHARE,
  costOfDoses,
  describeDifference,
  dyeDips,
  dyeingOfLot,
  figureOfShade,
  formatMoney,
  groundOf,
  sameConditions,
  sayFactor,
  sayWay,
  smallestIn,
  uncorrected,
  writeLetter,
} from '@vestigia/core';
import { ServerClock } from '../../api/server-clock';
import { StudioSettings } from '../../api/studio-settings';
import { askMatch } from '../../services/ask-match';
import { MatchAtWork } from '../../ui/match-at-work';
import { MatchRecordReader, foretoldUnder } from '../../services/match-record';
import { NumberField } from '../../ui/number-field';
import { FigureValue } from '../../ui/figure-value';
import { Swatch } from '../../ui/swatch';
import type { Corrected, DosedAs, TakenCorrection } from './taken-correction';
import { NOT_CORRECTED, correctionOf, strikeOffOf } from './taken-correction';
import { ScrollRegion } from '../../ui/scroll-region';
import { Decimals } from '../../ui/decimals';

const SETTLE_MS = 400;
type Ticked = Exclude<keyof ReorderBounds, 'mostShare'>;
const BOUND_NAMES: readonly { readonly key: Ticked; readonly name: string }[] = [
  { key: 'onlyPlannedJars', name: $localize`only the jars and materials that are planned` },
  { key: 'onlyPlannedWater', name: $localize`only the water that is planned` },
  { key: 'noMoreThanPlanned', name: $localize`no more of anything than is planned` },
  { key: 'noDearer', name: $localize`nothing that costs more than is planned, as far as costs are known` },
];

/** What earlier lots say of the lot that is planned: what will come out, what to change, whether to strike it off first. */
@Component({
  selector: 'vs-reorder-letter',
  imports: [
    Decimals,
    ScrollRegion,
    MatchAtWork,
    FigureValue,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    NumberField,
    RouterLink,
    Swatch,
  ],
  providers: [MatchRecordReader, StudioSettings],
  template: `
    @if (whyNot(); as why) {
      <p class="small soft">{{ why }}</p>
    } @else if (letter(); as l) {
      <section aria-label="What earlier lots say" i18n-aria-label>
        <h2 i18n>What earlier lots say</h2>
        <p class="opening">{{ l.opening }}</p>
        <p>{{ l.advice }}</p>
        @if (told(); as t) {
          <div class="mounts pair">
            <figure>
              <vs-swatch [lab]="master()" [width]="7" [height]="70" label="the master" i18n-label /><vs-swatch
                [lab]="under(t.unchanged.lab)"
                [width]="7"
                [height]="70"
                label="as it is planned"
                i18n-label
              />
              <figcaption i18n>
                the master, and as it is planned<br /><vs-figure
                  [figure]="figureOf(t.unchanged)"
                  name="As it is planned"
                  i18n-name
                />
              </figcaption>
            </figure>
            @for (w of t.ways; track $index) {
              <figure>
                <vs-swatch [lab]="master()" [width]="5" [height]="70" label="the master" i18n-label /><vs-swatch
                  [lab]="under(w.lab)"
                  [width]="5"
                  [height]="70"
                  [label]="sayWay(w)"
                />
                <figcaption>{{ $first ? says.asAdvised : says.anotherWay }}</figcaption>
              </figure>
            }
          </div>
          <div class="ways">
            @for (w of t.ways; track $index) {
              <p i18n>
                <strong>{{ sayWay(w) }}</strong>: <vs-figure [figure]="figureOf(w)" [name]="sayWay(w)" />, within
                {{ w.within80 | decimals: 1 }}{{ costOf(w) }}.
                @if (correctionOf(w); as c) {
                  <button class="act" type="button" (click)="taken.emit(c)">Plan it so</button>
                }
              </p>
            }
          </div>
          @if (l.strikeOff) {
            <p class="wet">{{ l.strikeOff }}</p>
            @if (strikeOffCorrection(); as c) {
              <p><button i18n class="act" type="button" (click)="struckOff.emit(c)">Plan the strike-off</button></p>
            }
          }
          @if (factors().length > 0) {
            <details>
              <summary i18n>What of then and now does how much</summary>
              <div class="scroller">
                <table class="ledger">
                  <caption i18n class="unseen">
                    What of then and now does how much
                  </caption>
                  <tbody>
                    @for (f of factors(); track f.name) {
                      <tr>
                        <th scope="row">{{ f.name }}</th>
                        <td>{{ f.words }}</td>
                        <td class="number">ΔE00 {{ f.deltaE }}</td>
                        <td class="small soft">{{ f.sure }}</td>
                      </tr>
                    }
                  </tbody>
                </table>
              </div>
            </details>
          }
          <details>
            <summary>{{ l.standsOn }}</summary>
            <p class="small">
              @for (r of basis(); track r.id) {
                <a [routerLink]="['/lots', r.lotId]">{{ r.title }}</a>{{ $last ? '.' : ', ' }}
              } @empty {
                <ng-container i18n
                  >No lot of this colourway was read yet: what is said comes from its dyestuffs in others.</ng-container
                >
              }
            </p>
          </details>
        }
      </section>
    } @else if (isUntold()) {
      <p i18n class="off" role="alert">
        What earlier lots say could not be worked out here. The plan below stands without it; load the page anew to try
        again.
      </p>
    } @else if (isAsking()) {
      <!-- About as high as the letter: the plan below doesn't move away under a hand when it comes. -->
      <div class="room">
        <vs-match-at-work [asked]="asked" what="Looking through what was dyed before …" i18n-what />
      </div>
    }
    @if (isAsking()) {
      <details>
        <summary i18n>Hold it to what is planned</summary>
        @for (b of boundNames; track b.key) {
          <label class="tick"
            ><input type="checkbox" [checked]="bounds()[b.key]" (change)="hold(b.key, $event)" /> {{ b.name }}</label
          >
        }
        <div class="fields">
          <mat-form-field
            ><mat-label i18n>At most so many times what is planned</mat-label
            ><input
              matInput
              vsNumber
              name="mostShare"
              placeholder="2"
              [ngModel]="bounds().mostShare"
              (ngModelChange)="holdTo($event)"
              [disabled]="bounds().noMoreThanPlanned"
          /></mat-form-field>
        </div>
        @if (mostShareIsWrong()) {
          <p i18n class="off" role="alert">A number from 1 to {{ mostCorrected }}, or empty for twice.</p>
        }
      </details>
    }
  `,
  styles: `
    .opening {
      font-size: 1.15rem;
      max-width: 44rem;
    }
    .room {
      min-height: 20rem;
    }
    .ways p {
      max-width: 44rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReorderLetter {
  /** What its template says by what holds. */
  protected readonly says = {
    asAdvised: $localize`as advised`,
    anotherWay: $localize`another way`,
  };

  private readonly record = inject(MatchRecordReader);
  private readonly clock = inject(ServerClock);
  private readonly house = inject(StudioSettings);
  readonly proposal = input.required<Proposal>();
  readonly colourwayId = input.required<string>();
  readonly master = input.required<LabUnder | null>();
  readonly toleranceDeltaE = input.required<number>();
  readonly formula = input<DeltaEFormula>('de00');
  readonly waterId = input.required<string>();
  /** The lot that is dyed again. */
  readonly again = input<string | undefined>();
  /** What the plan’s doses were corrected by already. */
  readonly corrected = input<Corrected>(NOT_CORRECTED);
  readonly taken = output<TakenCorrection>();
  /** A strike-off is to be planned so. */
  readonly struckOff = output<TakenCorrection>();
  protected readonly boundNames = BOUND_NAMES;
  /** What a correction is held to. */
  protected readonly bounds = signal<ReorderBounds>({
    onlyPlannedJars: false,
    onlyPlannedWater: false,
    noMoreThanPlanned: false,
    noDearer: false,
    mostShare: null,
  });
  protected readonly mostCorrected = MOST_CORRECTED_SHARE;
  /** What was typed is no bound. */
  protected readonly mostShareIsWrong = signal(false);

  protected holdTo(mostShare: number | null): void {
    const isWrong = mostShare !== null && !(mostShare >= 1 && mostShare <= MOST_CORRECTED_SHARE);
    this.mostShareIsWrong.set(isWrong);
    if (!isWrong) this.bounds.update((now) => ({ ...now, mostShare }));
  }

  protected hold(key: Ticked, event: Event): void {
    const { checked } = event.target as HTMLInputElement;
    this.bounds.update((now) => ({ ...now, [key]: checked }));
  }

  private readonly plan = computed((): Dyeing | undefined => {
    const [facts, r, { plan }] = [this.record.facts(), this.record.value(), this.proposal()];
    const batch = plan.batches[0]?.number;
    if (!facts || !r || batch === undefined) return undefined;
    const water = r.waters.find((w) => w.id === this.waterId()) ?? null;
    const at = new Date(this.clock.now()).toISOString();
    const lot = { colourwayId: this.colourwayId(), at, plan, records: [], water };
    return dyeingOfLot(lot, { batch, group: null, dip: null }, facts);
  });
  protected readonly whyNot = computed(() => {
    const master = this.master();
    if (!master) return $localize`Without a master nobody knows what it should come out as: nothing is foretold.`;
    if (!sameConditions(master, MATCH_CONDITIONS))
      return $localize`The master was read under another light than D65, 10°: shades are foretold under that one only.`;
    return this.record.value() && !this.plan()
      ? $localize`No dyestuff is dosed here that could be followed, or the base’s own colour isn’t known: nothing is foretold.`
      : '';
  });
  /** How much of the fibre each jar holds, per cent: no more can be weighed out of it. */
  private readonly mostPercent = computed((): ReadonlyMap<string, number> => {
    const wofG = this.proposal().plan.batches.reduce((sum, b) => sum + b.wof.value, 0);
    const jars = this.record.value()?.jars ?? [];
    return new Map(jars.map((j) => [j.id, (j.free / smallestIn('weight') / wofG) * 100]));
  });
  private readonly costs = computed(
    () => new Map((this.record.value()?.jars ?? []).map((j) => [j.id, j.costMinorPerG] as const)),
  );
  private readonly ask = computed((): ReorderAsk | undefined => {
    const [r, plan, standard] = [this.record.value(), this.plan(), this.master()];
    if (!r || !plan || !standard || this.whyNot() !== '') return undefined;
    return {
      readings: this.record.readings(),
      strengths: r.strengths,
      plan,
      recipe: uncorrected(plan, this.corrected(), this.dosedAs()),
      then: r.readings.find((x) => x.lotId !== null && x.lotId === this.again())?.dyeing ?? null,
      standard,
      toleranceDeltaE: this.toleranceDeltaE(),
      shelf: this.record.shelf(),
      baseLots: this.baseLots(plan),
      dips: dyeDips(this.proposal().plan.steps),
      waters: this.record.waters(),
      bounds: this.bounds(),
      fixed: this.proposal().whole,
      mostPercent: this.mostPercent(),
      formula: this.formula(),
      costMinorPerG: this.costs(),
    };
  });
  /** Lots of the base that hold enough for all of it. */
  private baseLots({ baseId }: Dyeing): BaseLot[] {
    const [r, facts] = [this.record.value(), this.record.facts()];
    const wofG = this.proposal().plan.batches.reduce((sum, b) => sum + b.wof.value, 0);
    return (r?.baseLots ?? []).flatMap((lot) => {
      const undyed = facts && lot.baseId === baseId ? groundOf(facts, baseId, lot.id) : undefined;
      return undyed && lot.free >= wofG * smallestIn('weight') ? [{ baseLotId: lot.id, undyed }] : [];
    });
  }
  protected readonly asked = askMatch('reorder', this.ask, SETTLE_MS);
  protected readonly isUntold = this.asked.isUntold;
  protected readonly isAsking = computed(() => this.ask() !== undefined);
  private readonly names = this.record.names;
  protected readonly letter = computed(() => {
    const asked = this.asked.told();
    return asked && writeLetter(asked.answer, asked.ask.standard, asked.ask.plan, this.names());
  });
  protected readonly told = computed(() => {
    const answer = this.asked.answer();
    return answer?.state === 'told' ? answer : undefined;
  });
  protected readonly strikeOffCorrection = computed(() => {
    const way = this.told()?.strikeOff?.way;
    const plan = this.asked.told()?.ask.plan;
    return way && plan && strikeOffOf(way, plan, this.dosedAs());
  });
  private readonly dosedAs = computed(
    (): DosedAs => new Map((this.record.value()?.jars ?? []).map((j) => [j.id, (j.dosedAsPercent ?? 100) / 100])),
  );
  protected readonly factors = computed(() =>
    (this.told()?.factors ?? []).map(({ factor, effect }) => ({
      name: sayFactor(factor, this.names()),
      words: describeDifference(effect.from, effect.to).summary,
      deltaE: decimals(effect.deltaE00, 1),
      sure: effect.within80 < effect.deltaE00 / 2 ? 'sure' : effect.within80 < effect.deltaE00 ? 'likely' : 'unsure',
    })),
  );
  /** The lots of this colourway that it stands on. */
  protected readonly basis = computed(() => {
    const all = (this.record.value()?.readings ?? []).filter(
      (r) => r.lotId !== null && r.dyeing.colourwayId === this.colourwayId(),
    );
    return all.filter((r, i) => all.findIndex((x) => x.lotId === r.lotId) === i);
  });

  /** What a way costs beside the plan, where it is known of every jar that it takes more or less out of. */
  protected costOf(way: ReorderWay): string {
    const [told, currency] = [this.told(), this.house.studio.value()?.currency ?? ''];
    if (!told || currency === '') return '';
    const weightG = this.proposal().plan.batches.reduce((sum, b) => sum + b.wof.value, 0);
    const costs = this.costs();
    const [now, then] = [costOfDoses(way.doses, weightG, costs), costOfDoses(told.unchanged.doses, weightG, costs)];
    if (way.turned.some((t) => [...now.unknown, ...then.unknown].includes(t.stockLotId))) return '';
    const minor = Math.round(now.minor - then.minor);
    if (minor === 0) return $localize`; costs the same`;
    return $localize`; costs ${formatMoney(Math.abs(minor), currency)} ${minor > 0 ? $localize`more` : $localize`less`}`;
  }

  protected readonly sayWay = (way: ReorderWay): string => sayWay(way, this.names());
  protected readonly under = foretoldUnder;

  /** How far from the master a way comes out, with its working for the margin. */
  private readonly figures = computed(() => {
    const [told, standard] = [this.told(), this.master()];
    const all = told && standard ? [told.unchanged, ...told.ways] : [];
    return new Map(all.map((w) => [w, figureOfShade(w.worked, standard!, w.within80, this.record.names())]));
  });
  protected readonly figureOf = (way: ReorderWay): Figure => this.figures().get(way)!;

  /** What the plan can take of a way by itself. */
  protected correctionOf(way: ReorderWay): TakenCorrection | undefined {
    const plan = this.asked.told()?.ask.plan;
    return plan && correctionOf(way, plan, this.dosedAs());
  }
}
