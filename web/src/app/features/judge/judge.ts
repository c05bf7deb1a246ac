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
import type { LabUnder, LotDetail, ReadingView } from '@vestigia/contract';
import type { ReadingState, ReadingWay, ShadeOf, Verdict } from '@vestigia/core';
import {
  WHOLE,
  READING_STATES,
  ciede2000,
  currentEntries,
  describeColour,
  describeDifference,
  foldFamily,
  isSettled,
  judgedAlone,
  placeShade,
  sayAlone,
  sayShade,
  sayTaken,
  takenBy,
  seenOfRest,
  standardFor,
  unitsOf,
  unseenUnits,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { ContextPanel } from '../../services/context-panel';
import { newId } from '../../api/new-id';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { When } from '../../ui/when';
import { NumberField } from '../../ui/number-field';
import { EyeForm } from './eye-form';
import { PhotoReading } from './photo-reading';
import type { FromFile } from './reader-file';
import { ReaderFile } from './reader-file';
import { SetsOfLot } from './sets-of-lot';
import { ShadeChoice } from '../../ui/shade-choice';

const RESTS_ON = { reading: '', eye: ', by one eye', twoEyes: ', by two people’s eyes' } as const;
const VERDICT_LABELS: Readonly<Record<Verdict, string>> = { pass: 'Pass it', hold: 'Hold it', refuse: 'Refuse it' };

/** A lot beside its master on neutral grey: readings, the difference in a dyer's words, the verdict. */
@Component({
  selector: 'vs-judge',
  imports: [
    EyeForm,
    NumberField,
    PhotoReading,
    ReaderFile,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    RefusalNote,
    SetsOfLot,
    ShadeChoice,
    Swatch,
    When,
  ],
  templateUrl: './judge.html',
  styleUrl: './judge.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JudgePage {
  private readonly api = inject(ApiClient);
  private readonly contextPanel = inject(ContextPanel);
  readonly id = input.required<string>();
  protected readonly states = READING_STATES;
  protected readonly verdictLabel = VERDICT_LABELS;
  protected readonly restsOn = RESTS_ON;
  protected readonly label = describeColour;
  protected readonly sayTaken = sayTaken;
  protected readonly isSettled = isSettled;
  protected readonly lot = liveQuery(
    ['lots'],
    () => this.api.get('/api/lots/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly reading = pageAction();
  protected readonly judging = pageAction();
  protected readonly open = computed(
    () => !['released', 'refused', 'cancelled'].includes(this.lot.value()?.summary.state ?? ''),
  );

  private readonly standards = computed(() => {
    const l = this.lot.value();
    return { master: l?.summary.master ?? null, expected: l?.expected ?? [], zones: l?.zoneStandards ?? [] };
  });
  protected readonly all = computed(() => {
    const l = this.lot.value();
    if (!l) return [];
    const status = new Set(currentEntries(l.readings));
    const judgedAt = l.verdicts.find((v) => v.verdict !== 'hold')?.at;
    return l.readings.map((r) => {
      const standard = standardFor(l.plan, placeShade(l.plan, r), this.standards());
      return {
        ...r,
        under: under(r),
        standard,
        of: [`Batch ${r.batch}`, sayShade(l.plan, r), r.state].filter((w) => w !== '').join(', '),
        struck: !status.has(r),
        afterwards: judgedAt !== undefined && r.at > judgedAt,
        deltaE: standard ? ciede2000(standard, r.lab, { kL: 1, kC: 1, kH: 1 }).deltaE : null,
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
            against: s.standard === l.summary.master ? 'the master' : 'what it is expected to be',
            label: describeDifference(s.standard, s.lab),
            tolerance: l.toleranceDeltaE as number | undefined,
          },
        ]
      : [];
    return l.first?.colour
      ? [
          ...toMaster,
          {
            against: `${l.first.tag}, the first lot`,
            label: describeDifference(l.first.colour, s.lab),
            tolerance: undefined,
          },
        ]
      : toMaster;
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
    if (unseen > 0) return `Seen dry: ${units - unseen} of ${units}.`;
    const alone = judgedAlone(l.verdicts);
    const family = foldFamily(l.plan, this.standards(), this.status(), alone).filter((m) => m.apart === null);
    const far = family.flatMap((m) => m.deltaE ?? []);
    const apart = Math.max(0, ...family.map((m) => m.betweenBatchesDeltaE));
    const between = l.plan.batches.length > 1 ? ` Between batches: ${apart.toFixed(2)}.` : '';
    return far.length === 0
      ? `There is no master to hold it against.${between}`
      : `Furthest: ΔE00 ${Math.max(...far).toFixed(2)}, tolerance ${l.toleranceDeltaE}.${between}`;
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
  protected readonly shade = linkedSignal((): ShadeOf => {
    const l = this.lot.value();
    if (!l) return WHOLE;
    const [next] = unseenUnits({ ...this.judged(l), eyes: [] });
    return next ? { ...WHOLE, batch: next.batch, group: next.group } : WHOLE;
  });
  protected readonly state = signal<ReadingState>('dry');
  protected readonly L = signal<number | null>(null);
  protected readonly a = signal<number | null>(null);
  protected readonly b = signal<number | null>(null);
  protected readonly replaces = signal<ReadingView | undefined>(undefined);
  protected readonly reason = signal('');
  /** Whether the verdict is of one shade by itself, and of which. */
  protected readonly isAlone = signal(false);
  protected readonly alone = signal(WHOLE);
  /** Once the lot is passed, only what was held by itself still waits for a verdict. */
  protected readonly heldAlone = computed(() =>
    judgedAlone(this.lot.value()?.verdicts ?? []).filter((v) => v.verdict === 'hold'),
  );
  protected readonly given = computed(() => {
    const l = this.lot.value();
    return (l?.verdicts ?? []).map((v) => ({ ...v, name: l && v.of ? sayAlone(l.plan, v.of) : '' }));
  });
  private readingId = newId();
  private verdictId = newId();

  constructor() {
    effect(() => {
      const l = this.lot.value();
      if (!l) return;
      const master = l.summary.master;
      this.contextPanel.notes.set([
        {
          title: 'Judge it',
          lines: [
            'Dry, in daylight, beside the master, never under the kitchen lamp.',
            master
              ? `Tolerance: ΔE00 ${l.toleranceDeltaE} under ${master.illuminant}/${master.observer}°.`
              : 'No master yet: if this is how it should look, say so, and it becomes the master.',
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
                lines: l.deviations.map((d) => `${l.plan.steps[d.stepIndex]?.title}: ${d.message}`),
              },
            ]
          : []),
      ]);
    });
  }

  protected correct(r: ReadingView): void {
    this.replaces.set(r);
    this.state.set(r.state);
    this.shade.set({ batch: r.batch, group: r.group, zone: r.zone, piece: r.piece, dip: r.dip });
  }

  /** What the new reading came from; typed over, it is typed. */
  private readonly fromFile = signal<FromFile | undefined>(undefined);

  protected takeFromFile(from: FromFile): void {
    this.fromFile.set(from);
    this.L.set(from.lab.L);
    this.a.set(from.lab.a);
    this.b.set(from.lab.b);
  }

  private way(): ReadingWay {
    const from = this.fromFile();
    const isAsFiled = from && from.lab.L === this.L() && from.lab.a === this.a() && from.lab.b === this.b();
    return isAsFiled ? from.way : 'typed';
  }

  protected read(): void {
    const { illuminant, observer } = this.under();
    const body = {
      id: this.readingId,
      ...this.shade(),
      state: this.state(),
      lab: { L: this.L() ?? NaN, a: this.a() ?? NaN, b: this.b() ?? NaN },
      illuminant,
      observer,
      taken: takenBy(this.way()),
      note: '',
      replacesId: this.replaces()?.id ?? null,
    };
    this.reading.run(this.api.post('/api/lots/{id}/readings', body, this.id()), ({ id }) => {
      this.readingId = newId();
      this.chosenId.set(id);
      this.replaces.set(undefined);
      for (const field of [this.L, this.a, this.b]) field.set(null);
      this.fromFile.set(undefined);
      this.lot.reload();
    });
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

  protected readonly signed = (value: number): string => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(2)}`;
}

const under = ({ lab, illuminant, observer }: ReadingView): LabUnder => ({ ...lab, illuminant, observer });
