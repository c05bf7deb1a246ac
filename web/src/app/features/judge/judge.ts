import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { LabUnder, LotDetail, ReadingView } from '@vestigia/contract';
import type { ShadeOf, Verdict } from '@vestigia/core';
import {
  said,
  DIFFERENCE_WORDS,
  trimZeros,
  decimals,
  WHOLE,
  deltaEBy,
  DELTA_E_LABELS,
  currentEntries,
  describeColour,
  describeDifference,
  foldFamily,
  isSettled,
  judgedAlone,
  placeShade,
  sayAlone,
  standingVerdicts,
  sayShade,
  sayTaken,
  seenOfRest,
  standardFor,
  unitsOf,
  shadeKey,
  unseenUnits,
} from '@vestigia/core';
import { EMPTY } from 'rxjs';
import { offered } from '../../services/offered';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { ContextPanel } from '../../services/context-panel';
import { newId } from '../../api/new-id';
import { CutSnippet } from '../../ui/cut-snippet';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { When } from '../../ui/when';
import type { NamedColour } from './colour-charts';
import { ColourCharts } from './colour-charts';
import { EyeForm } from './eye-form';
import { Neighbours } from './neighbours';
import { PhotoReading } from './photo-reading';
import { ReadingForm } from './reading-form';
import type { Missed } from './rescue';
import { Rescue } from './rescue';
import { SetsOfLot } from './sets-of-lot';
import { ShadeChoice } from '../../ui/shade-choice';
import type { ReadSpectrally } from './under-lights';
import { UnderLights } from './under-lights';
import { ScrollRegion } from '../../ui/scroll-region';
import { namesPage } from '../../services/page-title';
import { Kept } from '../../ui/kept';
import { GivenVerdicts } from '../../ui/given-verdicts';
import { Decimals } from '../../ui/decimals';
import { ActBar } from '../../ui/act-bar';
import { Said } from '../../ui/said';

const VERDICT_LABELS: Readonly<Record<Verdict, string>> = {
  pass: $localize`Pass it`,
  hold: $localize`Hold it`,
  refuse: $localize`Refuse it`,
};

/** A lot beside its master on neutral grey: readings, the difference in a dyer's words, the verdict. */
@Component({
  selector: 'vs-judge',
  imports: [
    ActBar,
    Said,
    Decimals,
    GivenVerdicts,
    Kept,
    ScrollRegion,
    ColourCharts,
    CutSnippet,
    EyeForm,
    Neighbours,
    PhotoReading,
    ReadingForm,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    RefusalNote,
    Rescue,
    SetsOfLot,
    ShadeChoice,
    Swatch,
    UnderLights,
    When,
  ],
  templateUrl: './judge.html',
  styleUrl: './judge.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JudgePage {
  /** What its template says by what holds. */
  protected readonly says = {
    holdWantsReason: $localize`To hold or refuse it, or to pass what strays, write the reason.`,
    master: (master: string | number): string => $localize`Master · ${master}`,
    noMasterYet: $localize`No master yet`,
    asAWhole: $localize`as a whole`,
    notRead: $localize`not read`,
    nothingWanted: $localize`nothing wanted`,
    heldByItself: $localize`, held by itself`,
    refusedByItself: $localize`, refused by itself`,
    within: $localize`within`,
    beyond: $localize`beyond`,
    afterTheVerdict: $localize`, after the verdict`,
    readBy: (name: string | number): string => $localize`read by ${name}`,
  };

  private readonly api = inject(ApiClient);
  private readonly contextPanel = inject(ContextPanel);
  readonly id = input.required<string>();
  protected readonly verdictLabel = VERDICT_LABELS;
  protected readonly words = DIFFERENCE_WORDS;
  protected readonly label = describeColour;
  protected readonly sayTaken = sayTaken;
  protected readonly isSettled = isSettled;
  protected readonly lot = liveQuery(
    ['lots'],
    () => this.api.get('/api/lots/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly judging = pageAction();
  protected readonly open = computed(
    () => !['released', 'refused', 'cancelled'].includes(this.lot.value()?.summary.state ?? ''),
  );

  private readonly standards = computed(() => {
    const l = this.lot.value();
    return {
      master: l?.summary.master ?? null,
      expected: l?.expected ?? [],
      zones: l?.zoneStandards ?? [],
      formula: l?.formula,
    };
  });
  protected readonly all = computed(() => {
    const l = this.lot.value();
    if (!l) return [];
    const status = new Set(currentEntries(l.readings));
    const judgedAt = standingVerdicts(l.verdicts).find((v) => v.verdict !== 'hold')?.at;
    return l.readings.map((r) => {
      const standard = standardFor(l.plan, placeShade(l.plan, r), this.standards());
      return {
        ...r,
        under: under(r),
        standard,
        of: [$localize`Batch ${r.batch}`, sayShade(l.plan, r), said(r.state)].filter((w) => w !== '').join(', '),
        struck: !status.has(r),
        afterwards: judgedAt !== undefined && r.at > judgedAt,
        deltaE: standard ? deltaEBy(l.formula, standard, r.lab) : null,
      };
    });
  });
  /** Shades of a lot that has several, each beside its own standard. */
  protected readonly family = computed(() => {
    const l = this.lot.value();
    if (!l) return [];
    const family = foldFamily(l.plan, this.standards(), this.status(), judgedAlone(l.verdicts));
    return family.length > 1 ? family : [];
  });
  /** One reading of a lot whose colourway waits becomes its master. */
  protected readingIsIt(readingId: string): void {
    const l = this.lot.value();
    if (!l) return;
    const body = { id: newId(), lab: null, lotId: l.summary.id, readingId, reason: '' };
    this.naming.run(this.api.post('/api/colourways/{id}/masters', body, l.summary.colourway.id), () =>
      this.lot.reload(),
    );
  }

  /** A shade of the lot as a colourway of its own: of that recipe, on that base. */
  protected asColourway({ group, lab }: Pick<ReadingView, 'group' | 'lab'>): Record<string, string> {
    const l = this.lot.value();
    const base = l?.plan.groups.find((g) => g.key === group)?.baseId ?? l?.base.id ?? '';
    return { version: l?.recipe.versionId ?? '', base, lab: `${lab.L} ${lab.a} ${lab.b}` };
  }

  private readonly status = computed(() => this.all().filter((r) => !r.struck));
  protected readonly chosenId = signal('');
  /** The reading looked at: the one chosen, else the newest. */
  protected readonly shown = computed(
    () => this.status().find((r) => r.id === this.chosenId()) ?? this.status().at(-1),
  );

  protected readonly differences = computed(() => {
    const l = this.lot.value();
    const s = this.shown();
    if (!l || !s) return [];
    const toMaster = s.standard
      ? [
          {
            against:
              l.summary.master && sameColour(s.standard, l.summary.master)
                ? $localize`the master`
                : $localize`what it is expected to be`,
            label: describeDifference(s.standard, s.lab),
            deltaE: deltaEBy(l.formula, s.standard, s.lab),
            formula: DELTA_E_LABELS[l.formula],
            tolerance: l.toleranceDeltaE as number | undefined,
          },
        ]
      : [];
    return l.first?.colour
      ? [
          ...toMaster,
          {
            against: $localize`${l.first.tag}, the first lot`,
            label: describeDifference(l.first.colour, s.lab),
            deltaE: describeDifference(l.first.colour, s.lab).deltaE,
            formula: DELTA_E_LABELS.de00,
            tolerance: undefined,
          },
        ]
      : toMaster;
  });

  /** What is unfolded: a chart that nobody looks at is not drawn, and nothing is asked for it. */
  protected readonly unfolded = signal({ beside: false, numbers: false, sets: false, rescue: false });
  protected readonly isOpen = (event: Event): boolean => (event.target as HTMLDetailsElement).open;

  /** What was looked at, where it is a whole shade that settled beyond the tolerance. */
  protected readonly missed = computed((): Missed | undefined => {
    const [l, s] = [this.lot.value(), this.shown()];
    const isWhole = s?.zone === null && s.piece === null && isSettled(s.state);
    if (!l || !isWhole || !s.standard || s.deltaE === null || s.deltaE <= l.toleranceDeltaE) return undefined;
    const { batch, group, dip, under, standard } = s;
    return { batch, group, dip, under, standard };
  });

  /** What a wet piece will be dry, from pieces that were read both ways. */
  private readonly wetLab = computed(() => {
    const s = this.shown();
    return s && (s.state === 'wet' || s.state === 'damp') ? s.lab : undefined;
  });
  protected readonly dry = liveQuery(
    ['lots'],
    () => {
      const [lab, l] = [this.wetLab(), this.lot.value()];
      if (!lab || !l) return EMPTY;
      const query = { L: String(lab.L), a: String(lab.a), b: String(lab.b), fibre: l.plan.groups[0]?.fibre ?? '' };
      return this.api.get('/api/dry-forecast', { query });
    },
    () => JSON.stringify(this.wetLab() ?? null),
  );

  /** What is drawn: the reading looked at, the first lot, and whatever else was read band by band. */
  protected readonly drawn = computed((): NamedColour[] => {
    const [l, s] = [this.lot.value(), this.shown()];
    if (!l || !s) return [];
    const others = this.status()
      .filter((r) => r.id !== s.id && isSettled(r.state))
      .slice(-4)
      .map((r) => ({ name: r.of, lab: r.under, spectrum: r.taken?.spectrum ?? null }));
    const first = l.first?.colour ? [{ name: l.first.tag, lab: l.first.colour, spectrum: null }] : [];
    return [{ name: s.of, lab: s.under, spectrum: s.taken?.spectrum ?? null }, ...first, ...others];
  });
  /** What was read band by band: the reading looked at, the master, the others. */
  protected readonly spectral = computed((): readonly ReadSpectrally[] => {
    const [own, ...others] = this.drawn();
    const master = { name: $localize`the master`, spectrum: this.lot.value()?.masterSpectrum ?? null };
    return [own, master, ...others].flatMap((d) => (d?.spectrum ? [{ name: d.name, spectrum: d.spectrum }] : []));
  });

  /** What a verdict is checked against, as the server checks it. */
  private judged(l: LotDetail): Parameters<typeof unseenUnits>[0] {
    const seen = {
      units: unitsOf(l.plan),
      readings: this.status().map((r) => placeShade(l.plan, r)),
      eyes: currentEntries(l.eyes).map((e) => placeShade(l.plan, { ...e, byId: e.by.id })),
    };
    return { ...seenOfRest(seen, judgedAlone(l.verdicts)), rule: l.judgeRule };
  }

  /** The lot as a whole, when every batch has settled. */
  protected readonly whole = computed(() => {
    const l = this.lot.value();
    if (!l) return '';
    const judged = this.judged(l);
    const unseen = unseenUnits(judged).length;
    const units = judged.units.length;
    if (unseen > 0) return $localize`Seen dry: ${units - unseen} of ${units}.`;
    const alone = judgedAlone(l.verdicts);
    const family = foldFamily(l.plan, this.standards(), this.status(), alone).filter((m) => m.apart === null);
    const far = family.flatMap((m) => m.deltaE ?? []);
    const apart = Math.max(0, ...family.map((m) => m.betweenBatchesDeltaE));
    const between = l.plan.batches.length > 1 ? $localize` Between batches: ${decimals(apart, 2)}.` : '';
    return far.length === 0
      ? $localize`There is no master to hold it against.${between}`
      : $localize`Furthest: ${DELTA_E_LABELS[l.formula]} ${decimals(Math.max(...far), 2)}, tolerance ${trimZeros(l.toleranceDeltaE, 2)}.${between}`;
  });

  /** Light and observer of a new reading: the master’s, or daylight. */
  protected readonly under = computed(
    () => this.lot.value()?.summary.master ?? { illuminant: 'D65' as const, observer: '10' as const },
  );
  protected readonly naming = pageAction();

  /** What came out becomes the master of a colourway that had none. */
  protected thisIsIt(colourwayId: string): void {
    const body = { id: newId(), lab: null, lotId: this.id(), reason: '' };
    this.naming.run(this.api.post('/api/colourways/{id}/masters', body, colourwayId), () => this.lot.reload());
  }

  /** What the next reading is of: the first that has none yet. */
  protected readonly shade = offered(
    (): ShadeOf => {
      const l = this.lot.value();
      if (!l) return WHOLE;
      const [next] = unseenUnits({ ...this.judged(l), eyes: [] });
      return next ? { ...WHOLE, batch: next.batch, group: next.group } : WHOLE;
    },
    (one, other) => one.batch === other.batch && shadeKey(one) === shadeKey(other),
  );
  protected readonly replaces = signal<ReadingView | undefined>(undefined);
  protected readonly reason = signal('');
  /** Whether the verdict is of one shade by itself, and of which. */
  protected readonly isAlone = signal(false);
  protected readonly alone = signal(WHOLE);
  /** Once the lot is passed, only what was held by itself still waits for a verdict. */
  protected readonly heldAlone = computed(() =>
    judgedAlone(this.lot.value()?.verdicts ?? []).filter((v) => v.verdict === 'hold'),
  );
  private verdictId = newId();

  constructor() {
    namesPage(() => {
      const l = this.lot.value()?.summary;
      return l && $localize`Judge ${l.tag} · ${l.colourway.name}`;
    });
    effect(() => {
      const l = this.lot.value();
      if (!l) return;
      const master = l.summary.master;
      this.contextPanel.notes.set([
        {
          title: $localize`Judge it`,
          lines: [
            $localize`Dry, in daylight, beside the master, never under the kitchen lamp.`,
            master
              ? $localize`Tolerance: ${DELTA_E_LABELS[l.formula]} ${trimZeros(l.toleranceDeltaE, 2)} under ${master.illuminant}/${master.observer}°.`
              : $localize`No master yet: if this is how it should look, say so, and it becomes the master.`,
          ],
        },
        {
          title: 'ΔE00',
          lines: [
            $localize`CIEDE2000 with kL : kC : kH = 1 : 1 : 1. Its parts for lightness, chroma and hue stand beside it: above zero is paler, brighter, or further round the hue circle.`,
          ],
        },
        ...(l.deviations.length > 0
          ? [
              {
                title: $localize`Otherwise than planned`,
                lines: l.deviations.map((d) => `${l.plan.steps[d.stepIndex]?.title}: ${d.message}`),
              },
            ]
          : []),
      ]);
    });
  }

  protected correct(r: ReadingView): void {
    this.replaces.set(r);
    this.shade.set({ batch: r.batch, group: r.group, zone: r.zone, piece: r.piece, dip: r.dip });
  }

  protected wasRead(id: string): void {
    this.chosenId.set(id);
    this.lot.reload();
  }

  protected nameOf(of: ShadeOf): string {
    const l = this.lot.value();
    return l ? sayAlone(l.plan, of) : '';
  }

  protected give(verdict: Verdict, of = this.isAlone() ? this.alone() : null): void {
    this.judging.run(
      this.api.post('/api/lots/{id}/verdicts', { id: this.verdictId, verdict, of, reason: this.reason() }, this.id()),
      () => {
        this.verdictId = newId();
        this.reason.set('');
        this.isAlone.set(false);
        this.lot.reload();
      },
    );
  }

  protected readonly signed = (value: number): string => `${value < 0 ? '−' : '+'}${decimals(Math.abs(value), 2)}`;
}

const sameColour = (x: LabUnder, y: LabUnder): boolean => x.L === y.L && x.a === y.a && x.b === y.b;
const under = ({ lab, illuminant, observer }: ReadingView): LabUnder => ({ ...lab, illuminant, observer });
