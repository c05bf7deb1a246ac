import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { Dyeing, GradedAsk, GradedWay } from '@vestigia/core';
import { decimals, countLabel, joinList } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { askMatch } from '../../services/ask-match';
import { MatchAtWork } from '../../ui/match-at-work';
import { MatchRecordReader, foretoldUnder } from '../../services/match-record';
import { NumberField } from '../../ui/number-field';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { namesPage } from '../../services/page-title';
import { Decimals } from '../../ui/decimals';

const TYPING_MS = 400;
const [LEAST_SHADES, MOST_SHADES, MOST_PALEST] = [2, 24, 90];
const TITLES: Readonly<Record<GradedWay['how'], string>> = {
  dose: $localize`By dose: a bath for each`,
  minutes: $localize`By minutes: one bath, pulled one by one`,
  dips: $localize`By dips: one piece after another out of the same bath`,
};
/** Half minutes: as finely as anybody pulls. */
const toHalf = (minutes: number): number => Math.max(0.5, Math.round(minutes * 2) / 2);
const grams = (g: number): string => `${g < 1 ? decimals(g, 2) : decimals(g, 1)} g`;

/** A family of shades evenly spaced to the eye, out of one recipe: by dose, by minutes, or by dips. */
@Component({
  selector: 'vs-graded',
  imports: [
    Decimals,
    MatchAtWork,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    NumberField,
    RefusalNote,
    RouterLink,
    Swatch,
  ],
  providers: [MatchRecordReader],
  templateUrl: './graded.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GradedPage {
  /** What its template says by what holds. */
  protected readonly says = {
    takesLeastDye: $localize`Takes least dye: `,
    notOfItself: $localize`; it does not come from the palest to the full shade by itself`,
    shade: (n: string | number): string => $localize`shade ${n}`,
  };

  private readonly api = inject(ApiClient);
  protected readonly record = inject(MatchRecordReader);
  readonly id = input.required<string>();
  private readonly page = liveQuery(
    ['colourways'],
    () => this.api.get('/api/colourways/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly colourway = computed(() => this.page.value()?.colourway);
  protected readonly count = countLabel;
  protected readonly shades = signal<number | null>(6);
  protected readonly palestPercent = signal<number | null>(20);
  protected readonly pieceG = signal<number | null>(100);
  protected readonly missing = computed(() => {
    const [shades, palest, pieceG] = [this.shades(), this.palestPercent(), this.pieceG()];
    if (shades === null || !Number.isInteger(shades) || shades < LEAST_SHADES || shades > MOST_SHADES)
      return $localize`A family has ${LEAST_SHADES} to ${MOST_SHADES} shades.`;
    if (palest === null || palest < 0 || palest > MOST_PALEST)
      return $localize`How pale the palest is goes from 0 to ${MOST_PALEST} % of the way to the full shade.`;
    return pieceG === null || pieceG <= 0 ? $localize`Give what one piece weighs, in grams.` : '';
  });
  /** The recipe with today’s jars: as its lots were dyed, else as it was proven. */
  private readonly dyeing = computed((): Dyeing | undefined => {
    const own = (this.record.value()?.readings ?? []).filter((r) => r.dyeing.colourwayId === this.id());
    const from = (own.find((r) => r.isMaster) ?? own.at(-1))?.dyeing;
    const jars = new Map(this.record.shelf().map((m) => [m.materialId, m.jars.at(-1)]));
    return (
      from && {
        ...from,
        doses: from.doses.map((d) => ({ ...d, ...(jars.get(d.materialId) ?? {}) })),
      }
    );
  });
  protected readonly whyNot = computed(() =>
    this.record.value() && !this.dyeing()
      ? $localize`No lot of this colourway was planned yet with dyestuffs that could be followed: plan one, and its shades can be told.`
      : '',
  );
  private readonly ask = computed((): GradedAsk | undefined => {
    const [r, dyeing, shades, palest] = [this.record.value(), this.dyeing(), this.shades(), this.palestPercent()];
    if (!r || !dyeing || shades === null || palest === null || this.missing() !== '') return undefined;
    return {
      readings: this.record.readings(),
      strengths: r.strengths,
      dyeing,
      shades,
      palestShare: palest / 100,
    };
  });
  protected readonly asked = askMatch('graded', this.ask, TYPING_MS);
  protected readonly isUntold = this.asked.isUntold;
  protected readonly isAsking = computed(() => this.ask() !== undefined);
  protected readonly tooFew = computed(() => {
    const answer = this.asked.answer();
    return answer?.state === 'tooFew'
      ? $localize`Too little was dyed and read so far: ${answer.readings} of ${answer.needed} readings.`
      : '';
  });
  protected readonly isPaceKnown = computed(() => {
    const answer = this.asked.answer();
    return answer?.state === 'told' && answer.isPaceKnown;
  });
  protected readonly ways = computed(() => {
    const told = this.asked.told();
    return told?.answer.state === 'told' ? told.answer.ways.map((way) => this.shown(way, told.ask.dyeing)) : [];
  });

  constructor() {
    namesPage(() => {
      const p = this.page.value();
      return p && $localize`Shades between, from ${p.colourway.name}`;
    });
  }

  private shown(way: GradedWay, { doses }: Dyeing) {
    const [names, pieceG] = [this.record.names(), this.pieceG() ?? 0];
    const dyes = doses.filter((d) => d.role === 'dyestuff');
    const weighed = (share: number): string =>
      joinList(dyes.map((d) => `${grams((d.percentOwf / 100) * pieceG * share)} ${names.material(d.materialId)}`));
    const say = (by: number): string => {
      switch (way.how) {
        case 'dose':
          return weighed(by);
        case 'minutes':
          return $localize`out after ${toHalf(by)} min`;
        case 'dips':
          return $localize`dip ${Math.round(by)}`;
      }
    };
    const minutes = way.how === 'minutes' ? way.shades.map((s) => toHalf(s.by)) : [];
    return {
      way,
      title: TITLES[way.how],
      shades: way.shades.map((s, i) => ({ ...s, n: i + 1, how: say(s.by) })),
      dye: $localize`${Math.round(100 * way.dyeShare)} % of the dye that ${countLabel(way.shades.length, 'piece')} at the full dose would take`,
      even:
        way.unevenness < 1.15
          ? $localize`evenly spaced to the eye`
          : $localize`the largest step is ${decimals(way.unevenness, 1)} times the mean one`,
      bath:
        way.how === 'dose'
          ? ''
          : $localize`In the bath for all of them: ${weighed(way.how === 'dips' ? 1 : way.shades.length)}.`,
      minutes,
      plan: { colourway: this.id(), size: `${way.shades.length} × ${pieceG} g`, pulls: minutes.join(' ') },
      along:
        minutes.length > 0
          ? $localize`Along one piece: mark it in ${minutes.length} equal parts, let all of it down, and lift one part more out of the liquor at ${joinList(minutes.map((m) => `${m} min`))}.`
          : '',
    };
  }

  protected readonly shade = foretoldUnder;
}
