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
import type { Params } from '@angular/router';
import { Router, RouterLink } from '@angular/router';
import type { LabUnder, LotDetail, LotSummary, RunEntryView } from '@vestigia/contract';
import type { Lab } from '@vestigia/core';
import {
  decimals,
  formatTemperature,
  asReallyDone,
  describeColour,
  describeDifference,
  foldRun,
  formatAmount,
  formatWeight,
  layOutPlaced,
  placeShade,
  said,
  sayShade,
  standardFor,
  STRAIN_LABELS,
  sayCourse,
  sayMinutes,
  sayPlanCaution,
  countLabel,
  sayPhBetween,
} from '@vestigia/core';
import { of } from 'rxjs';
import { StudioCalendar } from '../../services/studio-calendar';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { KeptOfLot } from './kept-of-lot';
import { May } from '../../ui/may';
import { LotCosts } from './lot-costs';
import { LotGoods } from './lot-goods';
import { TellLate } from './tell-late';
import { ContextPanel } from '../../services/context-panel';
import { PlacedPicture } from '../../ui/placed-picture';
import { PourBack } from '../../ui/pour-back';
import { Amount } from '../../format/amount';
import { FigureValue } from '../../ui/figure-value';
import { HeatChart } from '../../ui/heat-chart';
import { LOT_STATE_LABELS, isLotOver, lotStateClass } from '../../format/lot-states';
import { newId } from '../../api/new-id';
import { CutSnippet } from '../../ui/cut-snippet';
import { FastnessKnown } from '../../ui/fastness-known';
import { Notes } from '../../ui/notes';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { ThenAndNow } from '../../ui/then-and-now';
import { StepBaths } from '../../ui/step-baths';
import { Thread } from '../../ui/thread';
import { When } from '../../ui/when';
import { entryLabel, toldLater } from '../../format/entry-label';
import { ScrollRegion } from '../../ui/scroll-region';
import { namesPage } from '../../services/page-title';
import { ActBar } from '../../ui/act-bar';
import { Kept } from '../../ui/kept';
import { GivenVerdicts } from '../../ui/given-verdicts';
import { AtHand } from '../../ui/at-hand';
import { Decimals } from '../../ui/decimals';
import { Said } from '../../ui/said';

/** One lot, whole: its thread, what was planned and done at each station, what it was made from, how it was judged. */
@Component({
  selector: 'vs-lot',
  imports: [
    Said,
    Decimals,
    AtHand,
    GivenVerdicts,
    Kept,
    ActBar,
    ScrollRegion,
    KeptOfLot,
    LotCosts,
    LotGoods,
    May,
    TellLate,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    Amount,
    FigureValue,
    HeatChart,
    PlacedPicture,
    PourBack,
    CutSnippet,
    FastnessKnown,
    Notes,
    RefusalNote,
    StepBaths,
    Swatch,
    ThenAndNow,
    Thread,
    When,
  ],
  templateUrl: './lot.html',
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
  /** What its template says by what holds. */
  protected readonly says = {
    strikeOff: $localize`strike-off, `,
    beforeBooks: $localize`; before these books began, so nothing left the shelf`,
    bySimulatedProbe: $localize`By the simulated bath probe`,
    byProbe: $localize`By the bath probe`,
    toldOn: (told: string | number): string => $localize`, told ${told}`,
    master: $localize`Master`,
    noMasterYet: $localize`No master yet`,
    ph: (ph: string | number): string => $localize`, pH ${ph}`,
    hardness: (hardnessDh: string | number): string => $localize`, ${hardnessDh} °dH`,
    notSaid: $localize`not said`,
  };

  private readonly api = inject(ApiClient);
  private readonly calendar = inject(StudioCalendar);
  private readonly contextPanel = inject(ContextPanel);
  readonly id = input.required<string>();
  protected readonly action = pageAction();
  protected readonly why = signal('');
  protected readonly rehearsing = pageAction();
  protected readonly speeds = [1, 10, 30, 60, 120] as const;
  protected readonly speed = signal(60);
  private readonly router = inject(Router);
  /** Worked out only when asked for: it goes through the whole history of every material in the lot. */
  protected readonly costed = signal(false);
  private readonly recipe = liveQuery(
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
  /** What a probe read at the station looked at, where one hung in its bath. */
  protected readonly probed = liveQuery(
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
  /** All it takes has been taken, in these books. */
  protected readonly isOver = ({ state, offBooks }: LotSummary): boolean => !offBooks && isLotOver(state);
  protected readonly lot = liveQuery(
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
    const stepEntries = l.entries.filter((e) => e.stepIndex === step.index);
    const weighed = stepEntries.filter((e) => e.weighing && !replaced.has(e.id));
    const tag = (stockLotId: string): string => l.stockLots.find((j) => j.id === stockLotId)?.tag ?? '';
    return {
      step,
      began: l.entries.filter((e) => e.stepIndex === step.index && e.kind === 'start').at(-1)?.at,
      planned: [
        step.temperatureC === undefined ? '' : `${formatTemperature(step.temperatureC)}`,
        sayCourse(step) || sayMinutes(step.durationMin),
        step.targetPh ? sayPhBetween(step.targetPh) : '',
        step.strain ? $localize`strain ${STRAIN_LABELS[step.strain]}` : '',
        step.finishedBy === 'eye'
          ? $localize`done when it looks done`
          : step.finishedBy === 'both'
            ? $localize`by clock and eye`
            : '',
      ]
        .filter((w) => w !== '')
        .join(', '),
      state: {
        waiting: $localize`to come`,
        running: $localize`now`,
        paused: $localize`paused`,
        done: $localize`done`,
        skipped: $localize`skipped`,
      }[l.summary.stations[step.index]?.state ?? 'waiting'],
      deviations: l.deviations.filter((d) => d.stepIndex === step.index).map((d) => d.message),
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
      entries: stepEntries.map((e: RunEntryView) => ({
        id: e.id,
        at: e.at,
        by: e.by.name,
        told: toldLater(e) ? e.recordedAt : '',
        label: entryLabel(e, l),
        struck: replaced.has(e.id),
      })),
    };
  });

  /** What the recipe would say if it were written as this lot was really dyed. */
  protected readonly asDone = computed(() => {
    const [l, body] = [this.lot.value(), this.recipe.value()?.body];
    if (!l || !body || !isLotOver(l.summary.state)) return [];
    return asReallyDone(body, l.plan, foldRun(l.entries, l.plan.steps.length)).changes;
  });
  protected readonly writing = pageAction();

  protected writeAsDone(): void {
    this.writing.run(
      this.api.post('/api/lots/{id}/as-done', { id: newId() }, this.id()),
      ({ id }) => void this.router.navigate(['/recipes', id]),
    );
  }

  protected readonly shownReadings = computed(() => {
    const l = this.lot.value();
    if (!l) return [];
    const replaced = new Set(l.readings.map((r) => r.replacesId));
    const standards = { master: l.summary.master, expected: l.expected, zones: l.zoneStandards };
    return l.readings
      .filter((r) => !replaced.has(r.id))
      .map((r) => ({
        ...r,
        under: { ...r.lab, illuminant: r.illuminant, observer: r.observer },
        of: [$localize`Batch ${r.batch}`, sayShade(l.plan, r), said(r.state)].filter((w) => w !== '').join(', '),
        label:
          r.state === 'wet'
            ? $localize`still wet`
            : toStandard(standardFor(l.plan, placeShade(l.plan, r), standards), r.lab),
      }));
  });

  constructor() {
    namesPage(() => {
      const l = this.lot.value()?.summary;
      return l && `${l.tag} · ${l.colourway.name}`;
    });
    effect(() => {
      const l = this.lot.value();
      if (!l) return;
      const knots = l.deviations.map((d) => `${l.plan.steps[d.stepIndex]?.title}: ${d.message}`);
      this.contextPanel.notes.set([
        ...(knots.length > 0 ? [{ title: $localize`Otherwise than planned`, lines: knots }] : []),
        {
          title: $localize`History`,
          lines: [
            $localize`Agreed ${this.calendar.formatDay(l.summary.at)}, ${this.calendar.formatClock(l.summary.at)} by ${l.summary.by.name}`,
            ...l.plan.cautions.map(sayPlanCaution),
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

  protected readonly sizeLabel = (l: LotDetail): string => {
    const { groups } = l.plan;
    if (new Set(groups.map((g) => g.baseId)).size < 2)
      return $localize`${countLabel(l.summary.pieces, 'piece')} of ${formatWeight(l.summary.pieceWeightG)} · ${l.base.name}`;
    return [...new Set(groups.map((g) => g.baseId))]
      .map((id) => {
        const ofBase = groups.filter((g) => g.baseId === id);
        return $localize`${ofBase.reduce((sum, g) => sum + g.pieces, 0)} of ${formatWeight(ofBase[0]?.pieceWeightG ?? 0)} ${ofBase[0]?.baseName ?? ''}`;
      })
      .join(', ');
  };
  /** The lot that a strike-off was dyed for: again of the same, or of its colourway. */
  protected readonly lotAfter = ({ summary: { reorderOf, colourway } }: LotDetail): Params =>
    reorderOf ? { again: reorderOf.id } : { colourway: colourway.id };
  protected readonly stateLabel = (l: LotDetail): string => LOT_STATE_LABELS[l.summary.state];
  protected readonly stateClass = (l: LotDetail): string => lotStateClass(l.summary.state);
}

/** How far a colour lies from what it was to be, in figures and words; in words alone where nobody said. */
function toStandard(standard: LabUnder | null, lab: Lab): string {
  if (!standard) return describeColour(lab);
  const { deltaE, summary } = describeDifference(standard, lab);
  return `ΔE00 ${decimals(deltaE, 2)}, ${summary}`;
}
