import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { LabUnder } from '@vestigia/contract';
import type { FastnessKind, Lab, ReachAsk, Reached } from '@vestigia/core';
import {
  decimals,
  LEAST_OF_DYESTUFF,
  LEAST_READINGS,
  MATCH_CONDITIONS,
  costOfDoses,
  describeColour,
  describeDifference,
  formatMoney,
  groundOf,
  isInSeason,
  joinList,
  learnFastness,
  monthName,
  sameConditions,
  waterToMatch,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { StudioSettings } from '../../api/studio-settings';
import { askMatch } from '../../services/ask-match';
import { MatchAtWork } from '../../ui/match-at-work';
import { StudioCalendar } from '../../services/studio-calendar';
import { MatchRecordReader, foretoldUnder } from '../../services/match-record';
import { ColourEntry } from '../../ui/colour-entry';
import { NumberField } from '../../ui/number-field';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import type { SaidFastness } from './fastness-cards';
import { cardsOf, sayFastness } from './fastness-cards';
import { JudgeNav } from './judge-nav';
import { ScrollRegion } from '../../ui/scroll-region';
import { Decimals } from '../../ui/decimals';

/** What a shade may be reached with. */
const FROMS = [
  { key: 'shelf', name: $localize`what stands on the shelf` },
  { key: 'season', name: $localize`the shelf, or what is in season now` },
  { key: 'all', name: $localize`anything that was dyed here` },
] as const;
/** Costs are told for so much fibre, g. */
const PER_FIBRE_G = 100;
/** Further off than this a shade is not reached, ΔE00. */
const REACHED_DELTA_E = 3;
const START: LabUnder = { L: 60, a: 0, b: 0, ...MATCH_CONDITIONS };

/** Which of the studio’s dyestuffs reach a shade that somebody brings, alone or two in a bath, and at what cost. */
@Component({
  selector: 'vs-reach',
  imports: [
    Decimals,
    ScrollRegion,
    MatchAtWork,
    ColourEntry,
    FormsModule,
    JudgeNav,
    MatFormFieldModule,
    MatInputModule,
    NumberField,
    RefusalNote,
    RouterLink,
    Swatch,
  ],
  providers: [MatchRecordReader, StudioSettings],
  templateUrl: './reach.html',
  styles: `
    .words {
      white-space: normal;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReachPage {
  private readonly api = inject(ApiClient);
  private readonly house = inject(StudioSettings);
  private readonly today = inject(StudioCalendar).today();
  protected readonly record = inject(MatchRecordReader);
  /** Of the address: a colourway whose master is to be reached, or a colour, L* a* b* with spaces between. */
  readonly colourway = input<string>();
  readonly lab = input<string>();
  private readonly colourways = liveQuery(['colourways'], () => this.api.get('/api/colourways'));
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  private readonly tests = liveQuery(['fastness'], () => this.api.get('/api/fastness'));
  private readonly entry = viewChild(ColourEntry);
  protected readonly under = MATCH_CONDITIONS;
  protected readonly bases = computed(() =>
    (this.materials.value() ?? []).flatMap((m) => (m.base ? [{ id: m.id, name: m.name, ...m.base }] : [])),
  );
  private readonly lastDyed = computed(() => this.record.readings().at(-1)?.dyeing);
  /** The base of the colourway, else the one dyed last: most often it is the same again. */
  private readonly usualBaseId = computed(() =>
    this.colourway() ? (this.ofColourway()?.base.id ?? '') : (this.lastDyed()?.baseId ?? ''),
  );
  private readonly usualWaterId = computed(() => this.lastDyed()?.water.id ?? '');
  /** What stands there stays, whatever is dyed meanwhile on another tablet. */
  protected readonly baseId = linkedSignal<string, string>({
    source: this.usualBaseId,
    computation: stays,
  });
  protected readonly waterId = linkedSignal<string, string>({
    source: this.usualWaterId,
    computation: stays,
  });
  protected readonly froms = FROMS;
  protected readonly from = signal<(typeof FROMS)[number]['key']>('shelf');
  protected readonly mostPercent = signal<number | null>(null);
  protected readonly waters = computed(() => this.record.value()?.waters ?? []);
  protected readonly base = computed(() => this.bases().find((b) => b.id === this.baseId()));
  protected readonly start = computed((): LabUnder => this.base()?.undyed ?? START);
  /** The colour that the address brings; the same colour read anew overwrites nothing that is typed. */
  protected readonly given = computed(
    (): Lab | null => {
      const master = this.ofColourway()?.master;
      if (master && sameConditions(master, MATCH_CONDITIONS)) return { L: master.L, a: master.a, b: master.b };
      const [L, a, b] = (this.lab() ?? '').split(' ').map(Number);
      return L === undefined || a === undefined || b === undefined ? null : { L, a, b };
    },
    { equal: (x, y) => x === y || (x !== null && y !== null && x.L === y.L && x.a === y.a && x.b === y.b) },
  );
  protected readonly ofColourway = computed(() =>
    (this.colourways.value() ?? []).find((c) => c.id === this.colourway()),
  );
  /** What can be gathered now, with the month it lasts until. */
  private readonly season = computed(
    () =>
      new Map(
        (this.materials.value() ?? []).flatMap(({ id, facts: { season } }) =>
          season && isInSeason(season, this.today) ? [[id, monthName(season.toMonth)] as const] : [],
        ),
      ),
  );
  protected readonly missing = signal('');
  /** Said before anybody fills in the form: what has to be dyed and read first. */
  protected readonly notYet = computed(() => {
    const read = this.record.readings().filter((r) => r.isMaster !== true).length;
    return this.record.value() && read < LEAST_READINGS
      ? $localize`What reaches a shade is told from what was dyed and read dry here: ${LEAST_READINGS} lots or strips at least, and ${read === 0 ? $localize`none was` : read === 1 ? $localize`one was` : $localize`${read} were`} so far.`
      : '';
  });
  private readonly ask = signal<ReachAsk | undefined>(undefined);

  protected look(): void {
    const [entry, base, r] = [this.entry(), this.base(), this.record.value()];
    const standard = entry && !entry.isEmpty() && !entry.isBegun() ? entry.value()?.lab : undefined;
    const most = this.mostPercent();
    this.missing.set(
      !standard
        ? $localize`Give the shade as L*, a* and b*, all three.`
        : !base
          ? $localize`Choose the base it is to be dyed on.`
          : most !== null && !(most > 0)
            ? $localize`At most of each is a number above 0, or empty.`
            : '',
    );
    if (!standard || !base || !r || this.missing() !== '') return;
    const water = r.waters.find((w) => w.id === this.waterId()) ?? null;
    const baseLotId =
      r.readings.filter((x) => x.dyeing.baseId === base.id).at(-1)?.dyeing.baseLotId ?? $localize`a lot of ${base.id}`;
    const facts = this.record.facts();
    const undyed = facts && groundOf(facts, base.id, baseLotId);
    if (!undyed) return;
    this.ask.set({
      readings: this.record.readings(),
      strengths: r.strengths,
      ground: {
        fibre: base.fibre,
        baseId: base.id,
        baseLotId,
        undyed,
        water: waterToMatch(water),
        metal: 'stainless',
      },
      standard,
      shelf: this.record.shelf(),
      onlyFromShelf: this.from() !== 'all',
      inSeason: this.from() === 'season' ? [...this.season().keys()] : [],
      mostPercent: this.mostPercent(),
    });
  }

  protected readonly asked = askMatch('reach', this.ask);
  protected readonly isUntold = this.asked.isUntold;
  protected readonly isLooking = computed(
    () => this.ask() !== undefined && this.asked.told() === undefined && !this.isUntold(),
  );
  protected readonly standard = computed(() => this.asked.told()?.ask.standard);
  private readonly told = computed(() => {
    const answer = this.asked.answer();
    return answer?.state === 'told' ? answer : undefined;
  });
  /** All ways, nearest first: of one dyestuff and of two. */
  protected readonly ways = computed(() => {
    const told = this.told();
    const all = told ? [...told.singles, ...told.pairs] : [];
    return all.sort((x, y) => x.expectedDeltaE - y.expectedDeltaE).map((way) => this.shown(way));
  });
  /** One sentence: what comes nearest, and whether that is near. */
  protected readonly sentence = computed(() => {
    const [told, best, standard] = [this.told(), this.ways()[0], this.standard()];
    if (!told || !standard) return '';
    if (!best)
      return this.from() === 'shelf'
        ? $localize`No dyestuff on the shelf was dyed and read ${LEAST_OF_DYESTUFF} times: of none can it be said what it gives.`
        : $localize`No dyestuff was dyed and read ${LEAST_OF_DYESTUFF} times: of none can it be said what it gives.`;
    const { way } = best;
    const near =
      way.deltaE00 <= REACHED_DELTA_E
        ? $localize`ΔE00 ${decimals(way.deltaE00, 1)} from it`
        : $localize`yet even that comes out ${describeDifference(standard, way.lab).summary}, ΔE00 ${decimals(way.deltaE00, 1)} from it`;
    return $localize`Surest to come near, in per cent of the fibre: ${best.what}${best.over}, ${near}, within ΔE00 ${decimals(way.within80, 1)} of what is foretold four times in five.`;
  });
  /** What was never, or hardly ever, dyed and read here. */
  protected readonly untried = computed(() => {
    const [told, r] = [this.told(), this.record.value()];
    if (!told || !r) return '';
    const known = new Set(told.singles.flatMap((s) => s.dyestuffs.map((d) => d.materialId)));
    const names = r.materials
      .filter(
        (m) => m.kind === 'dyestuff' && !known.has(m.id) && r.jars.some((j) => j.materialId === m.id && j.free > 0),
      )
      .map((m) => m.name);
    return names.length === 0 ? '' : joinList(names);
  });

  private shown(way: Reached) {
    const names = this.record.names();
    const r = this.record.value();
    const cost = costOfDoses(
      way.dyeing.doses,
      PER_FIBRE_G,
      new Map((r?.jars ?? []).map((j) => [j.id, j.costMinorPerG])),
    );
    const currency = this.house.studio.value()?.currency ?? '';
    return {
      way,
      key: way.dyestuffs.map((d) => d.materialId).join('+'),
      what: joinList(way.dyestuffs.map((d) => `${names.material(d.materialId)} ${sayPercent(d.percentOwf)}`)),
      over:
        way.mordants.length === 0
          ? ''
          : $localize` over ${joinList(way.mordants.map((m) => `${names.material(m.materialId)} ${sayPercent(m.percentOwf)}`))}`,
      from: joinList(way.dyestuffs.map((d) => (d.stockLotId ? names.jar(d.stockLotId) : this.sayNoJar(d.materialId)))),
      limits: way.dyestuffs
        .filter((d) => d.isAtMost)
        .map((d) => $localize`${names.material(d.materialId)} is at the most that may go in`),
      cost:
        currency === '' || cost.unknown.length === way.dyeing.doses.length
          ? $localize`not known`
          : `${cost.unknown.length > 0 ? $localize`at least ` : ''}${formatMoney(Math.round(cost.minor), currency)}`,
      light: this.fastnessOf(way, 'light'),
      wash: this.fastnessOf(way, 'wash'),
      stands: joinList(way.dyestuffs.map((d) => $localize`${d.onFibre} of ${d.readings}`)),
    };
  }

  private sayNoJar(materialId: string): string {
    const until = this.season().get(materialId);
    return $localize`no jar of ${this.record.names().material(materialId)}${until ? $localize`, in season until ${until}` : ''}`;
  }

  private readonly fastness = computed(() => {
    const cards = cardsOf(this.tests.value() ?? []);
    return { light: learnFastness(cards, 'light'), wash: learnFastness(cards, 'wash') };
  });

  /** How far it is likely to change, by what cards showed of its dyestuffs. */
  private fastnessOf({ dyeing, dyestuffs, mordants }: Reached, kind: FastnessKind): SaidFastness {
    const { material } = this.record.names();
    const named = (all: readonly { readonly materialId: string }[]): string[] => all.map((m) => material(m.materialId));
    const dyed = { fibre: dyeing.fibre, dyestuffs: named(dyestuffs), mordants: named(mordants) };
    return sayFastness(this.fastness()[kind].foretell(dyed));
  }

  protected readonly shade = foretoldUnder;
  protected readonly label = (lab: Lab): string => describeColour({ ...lab, ...MATCH_CONDITIONS });
}

/** What stood there once stays, also where somebody chose nothing; until then the usual is offered. */
const stays = (usual: string, before?: { readonly source: string; readonly value: string }): string =>
  before !== undefined && before.source !== '' ? before.value : usual;

const sayPercent = (percent: number): string => `${percent < 1 ? decimals(percent, 2) : decimals(percent, 1)}\u00a0%`;
