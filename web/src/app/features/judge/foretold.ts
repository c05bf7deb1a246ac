import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { MatchRecord } from '@vestigia/contract';
import type { Foretold, JarStrength, ReviewAsk } from '@vestigia/core';
import { decimals, LEAST_READINGS, countLabel, median } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { askMatch } from '../../services/ask-match';
import { MatchAtWork } from '../../ui/match-at-work';
import { MatchRecordReader, foretoldUnder } from '../../services/match-record';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { FitCharts } from './fit-charts';
import { ForetoldLedger } from './foretold-ledger';
import { JudgeNav } from './judge-nav';
import { ScrollRegion } from '../../ui/scroll-region';
import { Decimals } from '../../ui/decimals';

const FURTHEST = 8;

/** How good what was foretold has been, colourway by colourway, and how strong each jar is by what it dyed. */
@Component({
  selector: 'vs-foretold',
  imports: [Decimals, ScrollRegion, MatchAtWork, FitCharts, ForetoldLedger, JudgeNav, RefusalNote, RouterLink, Swatch],
  providers: [MatchRecordReader],
  template: `<div class="head">
      <h1 i18n>How good it was foretold</h1>
      <vs-judge-nav />
    </div>
    <vs-refusal [problem]="record.problem()" />
    @if (tooFew(); as said) {
      <div class="empty">
        <p>{{ said }}</p>
      </div>
    } @else if (review(); as r) {
      <p i18n class="say">
        Of {{ count(r.foretold.length, 'reading') }}, each foretold from all the others, half came out within ΔE00
        {{ r.median | decimals: 1 }} of that; {{ percent(r.inside) }} of a hundred lay inside what was said, where
        eighty are promised.
      </p>
      @if (next(); as n) {
        <p i18n>
          What one strip would teach most: <strong>{{ n.tag }}</strong> of {{ n.material }}, which may be anything from
          {{ n.jar.fromPercent | decimals: 0 }} to {{ n.jar.toPercent | decimals: 0 }} % of the reference.
        </p>
      }
      <h2 i18n>By colourway</h2>
      <vs-foretold-ledger by="Colourway" i18n-by [groups]="byColourway()" />
      <h2 i18n>Over time</h2>
      <vs-foretold-ledger by="Quarter" i18n-by [groups]="byQuarter()" />
      <h2 i18n>Furthest from what was foretold</h2>
      <div class="mounts">
        @for (f of furthest(); track f.id) {
          <figure>
            <vs-swatch [lab]="under(f.foretold)" [width]="4" label="foretold" i18n-label /><vs-swatch
              [lab]="under(f.got)"
              [width]="4"
              label="as it came out"
              i18n-label
            />
            <figcaption i18n>
              <a [routerLink]="['/lots', f.lotId]">{{ f.title }}</a><br />ΔE00 {{ f.deltaE00 | decimals: 1 }}, said
              {{ f.within80 | decimals: 1 }}
            </figcaption>
          </figure>
        }
      </div>
      <h2 i18n>What was learnt of each dyestuff</h2>
      @if (record.value(); as all) {
        <vs-fit-charts [readings]="record.readings()" [strengths]="all.strengths" [names]="record.names()" />
      }
      <h2 i18n>Jars, by what was dyed with them</h2>
      <div class="scroller">
        <table class="ledger">
          <caption i18n class="unseen">
            Jars, by what was dyed with them
          </caption>
          <thead>
            <tr>
              <th i18n scope="col">Jar</th>
              <th i18n scope="col">Material</th>
              <th i18n scope="col" class="number">Of the reference</th>
              <th i18n scope="col" class="number">Nine times in ten</th>
              <th i18n scope="col" class="number">Readings</th>
            </tr>
          </thead>
          <tbody>
            @for (j of jars(); track j.jar.stockLotId) {
              <tr>
                <th scope="row">
                  <a [routerLink]="['/stores', j.jar.stockLotId]">{{ j.tag }}</a>
                </th>
                <td>{{ j.material }}</td>
                <td class="number">{{ j.jar.percent | decimals: 0 }} %</td>
                <td class="number">{{ j.jar.fromPercent | decimals: 0 }} – {{ j.jar.toPercent | decimals: 0 }} %</td>
                <td class="number">{{ j.jar.readings }}</td>
              </tr>
            }
          </tbody>
        </table>
      </div>
      <p i18n class="small soft">
        Before anything is dyed with a jar it counts as the reference, give or take what harvests differ by.
      </p>
    } @else if (isUntold()) {
      <p i18n class="off" role="alert">That could not be worked out here. Load the page anew to try again.</p>
    } @else if (record.value()) {
      <vs-match-at-work [asked]="asked" what="Foretelling each lot from the others …" i18n-what />
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ForetoldPage {
  private readonly api = inject(ApiClient);
  protected readonly count = countLabel;
  protected readonly record = inject(MatchRecordReader);
  private readonly colourways = liveQuery(['colourways'], () => this.api.get('/api/colourways'));
  protected readonly tooFew = computed(() => {
    const r = this.record.value();
    const read = r?.readings.filter((x) => !x.isMaster).length ?? 0;
    return r && read < LEAST_READINGS
      ? $localize`Nothing can be foretold before ${LEAST_READINGS} lots were read dry; so far ${read} ${read === 1 ? $localize`was` : $localize`were`}.`
      : '';
  });
  private readonly ask = computed(() => {
    const r = this.record.value();
    return r && this.tooFew() === '' ? this.askOf(r) : undefined;
  });
  protected readonly asked = askMatch('review', this.ask);
  protected readonly isUntold = this.asked.isUntold;
  protected readonly review = computed(() => this.asked.answer() ?? null);
  protected readonly byColourway = computed(() => {
    const all = this.review()?.foretold ?? [];
    return (this.colourways.value() ?? []).flatMap(({ id, name }) => {
      const own = all.filter((f) => f.colourwayId === id);
      return own.length === 0 ? [] : [{ name, link: `/colourways/${id}`, ...summed(own) }];
    });
  });
  /** Quarter by quarter, the newest first: whether it gets better. */
  protected readonly byQuarter = computed(() => {
    const on = new Map((this.record.value()?.readings ?? []).map((r) => [r.id, r.on]));
    const quarters = new Map<string, Foretold[]>();
    for (const f of this.review()?.foretold ?? []) {
      const day = on.get(f.id);
      if (!day) continue;
      const name = `${day.slice(0, 4)}, ${QUARTERS[Math.floor((Number(day.slice(5, 7)) - 1) / 3)]}`;
      quarters.set(name, [...(quarters.get(name) ?? []), f]);
    }
    return [...quarters]
      .sort(([x], [y]) => sortable(y).localeCompare(sortable(x)))
      .map(([name, own]) => ({ name, link: null, ...summed(own) }));
  });
  protected readonly furthest = computed(() => {
    const told = new Map((this.record.value()?.readings ?? []).map((r) => [r.id, r]));
    return [...(this.review()?.foretold ?? [])]
      .sort((x, y) => y.deltaE00 - x.deltaE00)
      .slice(0, FURTHEST)
      .map((f) => ({ ...f, title: told.get(f.id)?.title ?? '', lotId: told.get(f.id)?.lotId ?? '' }));
  });
  /** Jars of dyestuffs that something is left of, least known first. */
  protected readonly jars = computed(() => {
    const r = this.record.value();
    return (this.review()?.jars ?? [])
      .flatMap((jar) => {
        const known = r?.jars.find((j) => j.id === jar.stockLotId);
        const material = r?.materials.find((m) => m.id === known?.materialId);
        return known && material ? [{ jar, tag: known.tag, material: material.name }] : [];
      })
      .sort((x, y) => width(y.jar) - width(x.jar));
  });
  /** The jar that is least known, where another strip would say something. */
  protected readonly next = computed(() => this.jars().find(({ jar }) => width(jar) > WORTH_A_STRIP));
  protected readonly percent = (share: number): string => decimals(100 * share, 0);
  protected readonly under = foretoldUnder;

  private askOf(r: MatchRecord): ReviewAsk {
    const isDyestuff = (id: string): boolean => r.materials.some((m) => m.id === id && m.kind === 'dyestuff');
    return {
      readings: this.record.readings(),
      strengths: r.strengths,
      stockLotIds: r.jars.filter((j) => j.free > 0 && isDyestuff(j.materialId)).map((j) => j.id),
    };
  }
}

const QUARTERS = [
  $localize`January to March`,
  $localize`April to June`,
  $localize`July to September`,
  $localize`October to December`,
] as const;
const sortable = (quarter: string): string => `${quarter.slice(0, 4)}${QUARTERS.findIndex((q) => quarter.endsWith(q))}`;
const summed = (own: readonly Foretold[]) => ({
  readings: own.length,
  median: median(own.map((f) => f.deltaE00)),
  inside: own.filter((f) => f.deltaE00 <= f.within80).length,
});

/** From the least to the most a jar may be, as a ratio: below this, a strip teaches nothing. */
const WORTH_A_STRIP = 1.15;
const width = (jar: JarStrength): number => jar.toPercent / jar.fromPercent;
