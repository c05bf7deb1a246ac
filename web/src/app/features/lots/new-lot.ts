import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { LotExtras, Proposal, ProposalAsk, Studio } from '@vestigia/contract';
import {
  INTAKE_FLAG_LABELS,
  STRIKE_OFF_G,
  formatAmount,
  readToldTime,
  sayMinutes,
  sayPlanCaution,
  joinList,
} from '@vestigia/core';
import { catchError, debounceTime, merge, of, switchMap } from 'rxjs';
import { offered } from '../../services/offered';
import type { ShownProblem } from '../../api/api-client';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { LiveChanges, liveQuery } from '../../api/live-query';
import { StudioCalendar } from '../../services/studio-calendar';
import { ServerClock } from '../../api/server-clock';
import { ContextPanel } from '../../services/context-panel';
import { FastnessKnown } from '../../ui/fastness-known';
import { FigureValue } from '../../ui/figure-value';
import { newId } from '../../api/new-id';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { StepBaths } from '../../ui/step-baths';
import { ThenAndNow } from '../../ui/then-and-now';
import { LotChecks, mayGoOn } from './lot-checks';
import { NumberField } from '../../ui/number-field';
import { filledBaths } from './filled-baths';
import { LotExtrasForm } from './lot-extras';
import { ReorderLetter } from './reorder-letter';
import type { TakenCorrection } from './taken-correction';
import { NOT_CORRECTED, correctedFurther } from './taken-correction';
import { LotWeighings } from './lot-weighings';
import { ScrollRegion } from '../../ui/scroll-region';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';
import { DayField } from '../../ui/day-field';
import { DayPicker } from '../../ui/day-picker';
import { toChoose } from '../../ui/put-away-too';
import { Decimals } from '../../ui/decimals';
import { Said } from '../../ui/said';
import { NEW_LOT_WORDS } from './new-lot-words';

const TYPING_MS = 250;
type Alternative = Proposal['alternatives'][number];

const NOTHING_MORE: LotExtras = {
  ownGoods: [],
  also: [],
  intake: { flags: [], syntheticPercent: null, marks: [] },
  doses: [],
  corrected: [],
  added: [],
  outOf: [],
  strikeOff: false,
  dyeTimeShare: 1,
  pullMinutes: [],
  schools: [],
};

/**
 * From a colourway and a size to a lot: what to weigh, in which pots, from which jars. Agreed to, the stock is
 * promised.
 */
@Component({
  selector: 'vs-new-lot',
  imports: [
    Said,
    Decimals,
    DayField,
    DayPicker,
    DraftOf,
    ActBar,
    ScrollRegion,
    NumberField,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    FastnessKnown,
    FigureValue,
    LotChecks,
    LotExtrasForm,
    LotWeighings,
    RefusalNote,
    ReorderLetter,
    StepBaths,
    Swatch,
    ThenAndNow,
  ],
  templateUrl: './new-lot.html',
  styles: `
    form {
      max-width: none;
    }
    .ask {
      max-width: 60rem;
    }
    .echo {
      font-size: 1.1rem;
      max-width: none;
    }
    .even tbody tr > :first-child {
      min-width: 10rem;
    }
    .nowrap {
      white-space: nowrap;
    }
    .ways li {
      margin: 0.4rem 0;
    }
    .pots {
      max-width: 60rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewLotPage {
  protected readonly says = NEW_LOT_WORDS;

  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly contextPanel = inject(ContextPanel);
  private readonly changes = inject(LiveChanges);
  private readonly calendar = inject(StudioCalendar);
  private readonly clock = inject(ServerClock);
  /** The colourway come from. */
  readonly colourway = input<string | undefined>(undefined);
  /** How much of it, where that was said before. */
  readonly size = input<string | undefined>(undefined);
  /** When each piece of a graded family comes out of the dye, minutes with spaces between. */
  readonly pulls = input<string | undefined>(undefined);
  /** The line of an order it is dyed for. */
  readonly for = input<string | undefined>(undefined);
  /** The judged lot to dye again. */
  readonly again = input<string | undefined>(undefined);

  protected readonly action = pageAction();
  protected readonly toChoose = toChoose;
  protected readonly colourways = liveQuery(['colourways', 'recipes'], () => this.api.get('/api/colourways'));
  protected readonly studio = liveQuery(['studio'], () => this.api.get('/api/studio'));
  private readonly earlier = liveQuery(
    [],
    () => {
      const id = this.again();
      return id ? this.api.get('/api/lots/{id}', { id }) : of(undefined);
    },
    () => this.again(),
  );

  protected readonly colourwayId = linkedSignal(
    () => this.earlier.value()?.summary.colourway.id ?? this.colourway() ?? '',
  );
  /** Dyed again, it begins as it was asked for then: its size, other bases, what was seen at intake, schools. */
  protected readonly quantityText = linkedSignal(() => this.size() ?? this.earlier.value()?.quantityText ?? '');
  protected readonly waterId = offered(() => this.earlier.value()?.water?.id ?? this.chosen()?.lastWaterId ?? '');
  protected readonly without = signal<readonly string[]>([]);
  protected readonly chosen = computed(() => this.colourways.value()?.find((c) => c.id === this.colourwayId()));
  protected readonly recipeVersionId = offered(() => this.chosen()?.recipe.versionId ?? '');
  protected readonly acceptShortages = signal(false);
  protected readonly note = signal('');
  protected readonly extras = linkedSignal<LotExtras>(() => {
    const earlier = this.earlier.value()?.extras;
    // Marks are of those pieces alone, and jars of that day.
    if (earlier) return { ...earlier, intake: { ...earlier.intake, marks: [] }, outOf: [], strikeOff: false };
    const pullMinutes = (this.pulls() ?? '')
      .split(' ')
      .map(Number)
      .filter((m) => m > 0);
    return { ...NOTHING_MORE, pullMinutes };
  });
  /** Why each caution is gone past, by its key. */
  protected readonly reasons = signal<Readonly<Record<string, string>>>({});
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  protected readonly bases = computed(() =>
    toChoose(this.materials.value()).filter((m) => m.kind === 'fibre' && m.id !== this.chosen()?.base.id),
  );
  protected readonly ways = computed(() => this.refusal()?.ways ?? []);
  protected readonly proposal = signal<Proposal | undefined>(undefined);
  protected readonly refusal = signal<ShownProblem | undefined>(undefined);
  private lotId = newId();

  private readonly ask = computed<ProposalAsk | undefined>(() => {
    const studio = this.studio.value();
    if (
      this.colourwayId() === '' ||
      this.quantityText().trim() === '' ||
      !studio ||
      (this.again() && !this.earlier.value())
    )
      return undefined;
    const vesselIds =
      this.without().length === 0
        ? undefined
        : studio.vessels.map((v) => v.id).filter((id) => !this.without().includes(id));
    const { also, intake, ...extras } = this.extras();
    const marks = intake.marks.filter((m) => m.of.trim() !== '' && m.text.trim() !== '');
    return {
      colourwayId: this.colourwayId(),
      quantityText: this.quantityText(),
      waterId: this.waterId() || null,
      reorderOfId: this.again() ?? null,
      ...extras,
      intake: { ...intake, marks },
      also: also.filter((a) => a.baseId !== '' && a.quantityText.trim() !== ''),
      ...(vesselIds ? { vesselIds } : {}),
      ...(this.recipeVersionId() ? { recipeVersionId: this.recipeVersionId() } : {}),
    };
  });

  constructor() {
    merge(toObservable(this.ask), this.changes.listen(['stores', 'studio', 'colourways']))
      .pipe(
        debounceTime(TYPING_MS),
        switchMap(() => this.propose()),
        takeUntilDestroyed(),
      )
      .subscribe((p) => this.proposal.set(p));
    effect(() => {
      const p = this.proposal();
      this.contextPanel.notes.set(
        p && p.plan.cautions.length > 0
          ? [{ title: $localize`Before you agree`, lines: p.plan.cautions.map(sayPlanCaution) }]
          : [],
      );
    });
  }

  private propose() {
    const ask = this.ask();
    this.refusal.set(undefined);
    if (!ask) return of(undefined);
    return this.api.post('/api/lots/proposal', ask).pipe(
      catchError((p: ShownProblem) => {
        this.refusal.set(p);
        return of(undefined);
      }),
    );
  }

  protected readonly versionChoice = computed(() => {
    const then = this.proposal()?.then ?? null;
    const now = this.chosen()?.recipe;
    return then && now && then.recipeVersionId !== now.versionId
      ? {
          then: { id: then.recipeVersionId, number: then.recipeNumber },
          now: { id: now.versionId, number: now.number },
        }
      : undefined;
  });

  /** Everything that may be said beside, in one line. */
  protected moreLabel(s: Studio): string {
    const { intake, also, schools } = this.extras();
    const water = s.waters.find((w) => w.id === this.waterId())?.name ?? $localize`not said`;
    return [
      $localize`Pots that may be used: ${s.vessels.length - this.without().length} of ${s.vessels.length}`,
      $localize`water: ${water}:water:`,
      $localize`at intake: ${intake.flags.length === 0 ? $localize`nothing to note` : intake.flags.map((f) => INTAKE_FLAG_LABELS[f]).join(', ')}`,
      also.length === 0 ? $localize`no other base` : $localize`other bases: ${also.length}`,
      schools.length === 0 ? $localize`as proven` : $localize`other schools: ${schools.length}`,
    ].join(' · ');
  }

  /** Takes so much of a dose that the recipe leaves open; nothing written takes the least. */
  protected chooseDose({ stepKey, materialId }: Proposal['ranges'][number], percentOwf: number | null): void {
    const others = this.extras().doses.filter((d) => d.stepKey !== stepKey || d.materialId !== materialId);
    const doses = percentOwf === null ? others : [...others, { stepKey, materialId, percentOwf }];
    this.extras.set({ ...this.extras(), doses });
  }

  protected toggleVessel(id: string): void {
    this.without.update((now) => (now.includes(id) ? now.filter((v) => v !== id) : [...now, id]));
  }

  /** It was dyed before it is written down: from when, and whether its stuff is in these books at all. */
  protected readonly already = signal(false);
  protected readonly toldDay = signal(this.calendar.today());
  protected readonly toldTime = signal('');
  protected readonly beforeBooks = signal(false);
  protected readonly beforeBooksTold = computed(() => this.already() && this.beforeBooks());
  private readonly toldAt = computed(() => {
    const time = this.toldTime().trim() === '' ? 'morning' : this.toldTime();
    const read = readToldTime(time);
    return read?.by === 'clock' && this.toldDay() !== ''
      ? this.calendar.instantOf(this.toldDay(), read.clock)
      : undefined;
  });
  protected readonly toldTrouble = computed(() => {
    const at = this.toldAt();
    if (at === undefined) return $localize`Write the time like 9:40, about 10, or morning.`;
    return at > this.clock.now() ? $localize`That is still to come. Say when it was really dyed.` : '';
  });

  /** Why it can't be agreed to yet; nothing where it can. */
  protected whyNot(p: Proposal): string {
    if (!this.beforeBooksTold() && this.short(p) !== '' && !this.acceptShortages())
      return $localize`Tick the shortage to go on with it.`;
    if (!this.goesOn(p))
      return p.checks.some((c) => c.severity === 'stop')
        ? $localize`A stop stands above: this lot can’t start so.`
        : $localize`Say to each caution above why you go on.`;
    return this.already() ? this.toldTrouble() : '';
  }

  protected agree(): void {
    const p = this.proposal();
    const ask = this.ask();
    if (!p || !ask) return;
    const toldAt = this.already() ? this.toldAt() : undefined;
    this.action.run(
      this.api.post('/api/lots', {
        id: this.lotId,
        ask,
        digest: p.digest,
        forLineId: this.for() ?? null,
        acceptShortages: this.acceptShortages(),
        told: toldAt === undefined ? null : { at: new Date(toldAt).toISOString(), beforeBooks: this.beforeBooks() },
        note: this.note(),
        acknowledged: p.checks.map((c) => ({ key: c.key, reason: this.reasons()[c.key] ?? '' })),
      }),
      ({ id }) => void this.router.navigate(toldAt === undefined ? ['/lots', id] : ['/bench/card', id]),
    );
  }

  protected readonly hours = sayMinutes;
  protected readonly riskLabel: Readonly<Record<Alternative['code'], string>> = {
    oneVessel: $localize`The second filling is dyed after the first: judge the two side by side.`,
    shorterBath: $localize`Less room to turn: deeper, and less even.`,
    fewerVessels: $localize`More batches than need be: each is a bath to watch.`,
  };
  protected wayLabel({ code, batches, liquorRatio }: Alternative): string {
    if (code === 'oneVessel') return $localize`${batches[0]?.vesselName ?? ''}, filled twice`;
    return code === 'shorterBath'
      ? $localize`a bath of 1:${liquorRatio}`
      : joinList([...new Set(batches.map((b) => b.vesselName))]);
  }
  protected readonly batchesLabel = ({ batches }: Alternative): string => batches.map((b) => b.pieces).join(' + ');

  protected takeAlternative({ vesselIds, liquorRatio, fills }: Alternative): void {
    if (vesselIds)
      this.without.set((this.studio.value()?.vessels ?? []).map((v) => v.id).filter((id) => !vesselIds.includes(id)));
    this.takeWay({ ...(liquorRatio ? { liquorRatio } : {}), ...(fills ? { fills } : {}) });
  }

  /** Nearer to the master, for this lot alone. */
  protected takeCorrection({ waterId, ...further }: TakenCorrection): void {
    this.extras.update((now) => ({ ...now, ...correctedFurther(now, further) }));
    if (waterId !== null) this.waterId.set(waterId);
    this.stayHere();
  }

  /** The button that was pressed goes: the hand stays at what is said in its place. */
  private readonly said = viewChild<ElementRef<HTMLElement>>('said');
  private readonly letter = viewChild('letter', { read: ElementRef<HTMLElement> });
  private stayHere(): void {
    setTimeout(() => (this.said() ?? this.letter())?.nativeElement.focus());
  }

  /** What was planned before a strike-off took its place. */
  private readonly whole = signal<Pick<ProposalAsk, 'quantityText' | 'waterId'> & { extras: LotExtras }>({
    quantityText: '',
    waterId: null,
    extras: NOTHING_MORE,
  });
  /** A little of it, dyed first to see what the whole lot needs. */
  protected strikeOff(taken: TakenCorrection): void {
    this.whole.set({ quantityText: this.quantityText(), waterId: this.waterId(), extras: this.extras() });
    this.takeCorrection(taken);
    this.extras.update((now) => ({ ...now, strikeOff: true, also: [], pullMinutes: [] }));
    this.quantityText.set(`${STRIKE_OFF_G} g`);
  }
  protected planWhole(): void {
    const { quantityText, waterId, extras } = this.whole();
    this.extras.set(extras);
    this.quantityText.set(quantityText);
    this.waterId.set(waterId ?? '');
    this.stayHere();
  }

  protected readonly isCorrected = computed(() => {
    const { corrected, added, outOf, dyeTimeShare } = this.extras();
    return corrected.length > 0 || added.length > 0 || outOf.length > 0 || dyeTimeShare !== 1;
  });
  /** As the recipe says, after all. */
  protected uncorrect(): void {
    this.extras.update((now) => ({ ...now, ...NOT_CORRECTED }));
    this.stayHere();
  }

  protected takeWay(way: { liquorRatio?: number; fills?: number }): void {
    const { liquorRatio: _ratio, fills: _fills, ...rest } = this.extras();
    this.extras.set({
      ...rest,
      ...(way.liquorRatio ? { liquorRatio: way.liquorRatio } : {}),
      ...(way.fills ? { fills: way.fills } : {}),
    });
  }

  protected readonly goesOn = (p: Proposal): boolean => mayGoOn(p.checks, this.reasons());
  protected readonly bathsOf = filledBaths;
  protected readonly piecesIn = (p: Proposal, b: Proposal['plan']['batches'][number]): string => {
    if (p.plan.groups.length < 2) return String(b.pieces);
    return b.groups
      .map((part) => {
        const g = p.plan.groups.find((o) => o.key === part.key);
        return `${part.pieces} ${g?.baseName ?? ''}${g?.partName ? `, ${g.partName}` : ''}`;
      })
      .join(' · ');
  };
  protected readonly short = (p: Proposal): string =>
    p.plan.materials
      .filter((m) => m.short > 0)
      .map((m) => $localize`${formatAmount(m.short, m.measure)} of ${m.name}`)
      .join(', ');
  protected readonly differing = (p: Proposal): string => {
    const names = p.factors.filter((f) => !f.same).map((f) => f.name.toLowerCase());
    return names.length === 0
      ? $localize`Everything is as it was then.`
      : $localize`Not as it was then: ${names.join(', ')}.`;
  };
}
