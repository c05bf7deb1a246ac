import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { LabUnder, LotDetail } from '@vestigia/contract';
import type { RescueAsk } from '@vestigia/core';
import { MATCH_CONDITIONS, dyeDips, dyeingOfLot, foldRun, sameConditions, writeRescue } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { askMatch } from '../../services/ask-match';
import { MatchAtWork } from '../../ui/match-at-work';
import { MatchRecordReader, foretoldUnder } from '../../services/match-record';
import { Swatch } from '../../ui/swatch';

/** What was read of one whole shade, and what it should have been. */
export interface Missed {
  readonly batch: number;
  readonly group: string | null;
  readonly dip: number | null;
  readonly under: LabUnder;
  readonly standard: LabUnder;
}

/** What can still be done about a shade that missed: only what goes on top, or what else it could be sold as. */
@Component({
  selector: 'vs-rescue',
  imports: [MatchAtWork, RouterLink, Swatch],
  providers: [MatchRecordReader],
  template: `@if (whyNot(); as why) {
      <p class="small soft">{{ why }}</p>
    } @else if (letter(); as l) {
      <p>{{ l.opening }}</p>
      @if (l.ways.length > 0) {
        <div class="mounts pair">
          <figure>
            <vs-swatch [lab]="missed().standard" [width]="6" [height]="70" label="wanted" i18n-label /><vs-swatch
              [lab]="missed().under"
              [width]="6"
              [height]="70"
              label="as it is"
              i18n-label
            />
            <figcaption i18n>wanted, and as it is</figcaption>
          </figure>
          @for (w of ways(); track $index) {
            <figure>
              <vs-swatch [lab]="missed().standard" [width]="5" [height]="70" label="wanted" i18n-label /><vs-swatch
                [lab]="shade(w.lab)"
                [width]="5"
                [height]="70"
                [label]="l.ways[$index]!.what"
              />
              <figcaption>{{ $first ? says.surest : says.anotherWay }}</figcaption>
            </figure>
          }
        </div>
        @for (w of l.ways; track $index) {
          <p>
            <strong>{{ w.what }}</strong>: {{ w.comes }}. {{ w.how }}
          </p>
        }
        <p i18n class="small">
          Read the cautions of what goes in, and its supplier’s safety data sheet, before it is weighed. Try it on one
          piece first and read that dry. A fresh bath is a lot of its own:
          <a [routerLink]="['/lots', lot().summary.id]">keep the pieces on the shelf as dyed fibre</a>, and dye them
          from there.
        </p>
      }
      @if (l.soldAs) {
        <p>{{ l.soldAs }}</p>
      }
    } @else if (isUntold()) {
      <p i18n class="off" role="alert">That could not be worked out here. Load the page anew to try again.</p>
    } @else {
      <vs-match-at-work [asked]="asked" what="Trying what could go on top …" i18n-what />
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Rescue {
  /** What its template says by what holds. */
  protected readonly says = {
    surest: $localize`surest`,
    anotherWay: $localize`another way`,
  };

  private readonly api = inject(ApiClient);
  private readonly record = inject(MatchRecordReader);
  readonly lot = input.required<LotDetail>();
  readonly missed = input.required<Missed>();
  private readonly colourways = liveQuery(['colourways'], () => this.api.get('/api/colourways'));
  protected readonly shade = foretoldUnder;

  private readonly dyeing = computed(() => {
    const [l, { batch, group, dip }, facts] = [this.lot(), this.missed(), this.record.facts()];
    if (!facts) return undefined;
    const records = foldRun(l.entries, l.plan.steps.length);
    const { id: colourwayId } = l.summary.colourway;
    const water = this.record.value()?.waters.find((w) => w.id === l.water?.id) ?? null;
    return dyeingOfLot({ colourwayId, at: l.summary.at, plan: l.plan, records, water }, { batch, group, dip }, facts);
  });
  protected readonly whyNot = computed(() => {
    const { under, standard } = this.missed();
    if (!sameConditions(under, MATCH_CONDITIONS) || !sameConditions(standard, MATCH_CONDITIONS))
      return $localize`It was read under another light than D65, 10°: what would help is worked out under that one only.`;
    return this.record.value() && !this.dyeing()
      ? $localize`No dyestuff was dosed here that could be followed, or the base’s own colour isn’t known: nothing can be said.`
      : '';
  });
  private readonly ask = computed((): RescueAsk | undefined => {
    const [r, dyeing, all] = [this.record.value(), this.dyeing(), this.colourways.value()];
    if (!r || !dyeing || !all || this.whyNot() !== '') return undefined;
    const { under, standard } = this.missed();
    return {
      readings: this.record.readings(),
      strengths: r.strengths,
      dyeing,
      dips: dyeDips(this.lot().plan.steps),
      read: under,
      standard,
      shelf: this.record.shelf(),
      others: all.flatMap((c) =>
        c.id !== this.lot().summary.colourway.id &&
        c.base.id === dyeing.baseId &&
        c.master &&
        sameConditions(c.master, MATCH_CONDITIONS)
          ? [{ id: c.id, lab: c.master, toleranceDeltaE: c.toleranceDeltaE }]
          : [],
      ),
    };
  });
  protected readonly asked = askMatch('rescue', this.ask);
  protected readonly isUntold = this.asked.isUntold;
  private readonly answer = this.asked.answer;
  protected readonly ways = computed(() => {
    const answer = this.answer();
    return answer?.state === 'told' ? answer.ways : [];
  });
  /** Dry fibre of the batch that missed, g. */
  private readonly weightG = computed(() => {
    const { plan } = this.lot();
    return (plan.batches.find((b) => b.number === this.missed().batch) ?? plan.batches[0])?.wof.value ?? 0;
  });
  protected readonly letter = computed(() => {
    const answer = this.answer();
    const nameOf = (id: string): string => (this.colourways.value() ?? []).find((c) => c.id === id)?.name ?? 'another';
    return answer && writeRescue(answer, this.missed().standard, this.weightG(), this.record.names(), nameOf);
  });
}
