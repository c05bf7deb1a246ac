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
  untracked,
  viewChild,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail } from '@vestigia/contract';
import type { BenchAct, NotDry, RunDetails, SolutionTaken } from '@vestigia/core';
import { formatAmount, formatVolume, readAmount, readTagCode, smallestIn } from '@vestigia/core';
import { firstValueFrom } from 'rxjs';
import type { ShownProblem } from '../../api/api-client';
import { ApiClient } from '../../api/api-client';
import { Instruments } from '../../api/instruments';
import { newId } from '../../api/new-id';
import { takeFocus } from '../../services/take-focus';
import { RefusalNote } from '../../ui/refusal';
import { BenchState } from './bench-state';

type WeighAct = Extract<BenchAct, { kind: 'weigh' }>;

/**
 * One material at a time: the jar to take from, what to reach, what lies on the pan. A reading is taken when it
 * stands still.
 */
@Component({
  selector: 'vs-act-weigh',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  templateUrl: './act-weigh.html',
  styleUrl: './bench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ActWeigh {
  /** What its template says by what holds. */
  protected readonly says = {
    takenOnceStill: $localize`It is taken as soon as it stands still.`,
    whatTheBalanceShows: $localize`What the balance shows`,
    whatWasMeasuredOut: $localize`What was measured out`,
    customersOwn: $localize`the customer’s own`,
    noneOnTheShelf: $localize`none on the shelf`,
  };

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly api = inject(ApiClient);
  private readonly instruments = inject(Instruments);
  protected readonly state = inject(BenchState);
  readonly act = input.required<WeighAct>();
  readonly lot = input.required<LotDetail>();
  readonly main = viewChild<ElementRef<HTMLButtonElement>>('main');
  private readonly field = viewChild<ElementRef<HTMLInputElement>>('field');

  /** Which weighing this is: another one begins with empty fields. */
  private readonly which = computed(() => {
    const a = this.act();
    return `${a.lotId} ${a.step.index} ${a.weighing.batch} ${a.weighing.materialId} ${a.pick.stockLotId} ${a.portion}`;
  });
  protected readonly shown = linkedSignal({ source: this.which, computation: () => '' });
  protected readonly tag = linkedSignal({ source: this.which, computation: () => '' });
  protected readonly stockLotText = linkedSignal({ source: this.which, computation: () => '' });
  protected readonly armed = linkedSignal({ source: this.which, computation: () => false });
  protected readonly without = linkedSignal({ source: this.which, computation: () => false });
  private readonly armedMore = signal(false);
  protected readonly stockLots = computed(() =>
    this.lot().stockLots.filter((j) => j.materialId === this.act().weighing.materialId && j.onHand > 0),
  );
  protected readonly stockLotId = linkedSignal({
    source: this.which,
    computation: () => {
      const id = this.act().pick.stockLotId;
      return (this.stockLots().some((j) => j.id === id) ? id : null) ?? this.stockLots()[0]?.id ?? '';
    },
  });
  /** A customer's own comes from no jar. */
  protected readonly isOwnGoods = computed(() =>
    this.lot().plan.materials.some((m) => m.materialId === this.act().weighing.materialId && m.ownGoods === true),
  );
  protected readonly isFibre = computed(() => this.act().step.kind === 'fibre');
  protected readonly notDry = linkedSignal<string, NotDry | ''>({ source: this.which, computation: () => '' });
  /** What the jar holds by its books, where more than that was weighed from it. */
  protected readonly beyond = computed(() => {
    const [jar, r] = [this.stockLots().find((j) => j.id === this.stockLotId()), this.reading()];
    return jar && r?.ok === true && r.amount > jar.onHand && jar.materialId === this.act().weighing.materialId
      ? jar
      : undefined;
  });
  protected readonly settlesMore = linkedSignal({ source: this.which, computation: () => false });
  protected readonly emptied = linkedSignal({ source: this.which, computation: () => false });
  protected readonly mayWeigh = computed(() => this.stockLotId() !== '' || this.isOwnGoods());
  protected readonly containerId = signal('');
  protected readonly naming = signal(false);
  protected readonly containerName = signal('');
  protected readonly why = signal('');
  protected readonly busy = signal(false);
  protected readonly problem = signal<ShownProblem | undefined>(undefined);

  protected readonly pan = this.instruments.pan;
  protected readonly onBalance = computed(() => {
    const pan = this.pan();
    return this.act().weighing.measure === 'weight' &&
      this.instruments.sourceOf('balance') !== 'hand' &&
      pan &&
      pan.state !== 'none'
      ? pan
      : undefined;
  });
  private readonly netG = computed(() => {
    const pan = this.onBalance();
    const container = this.state.around()?.containers.find((c) => c.id === this.containerId());
    return pan?.weightG === undefined || pan.weightG === null
      ? undefined
      : Math.round((pan.weightG - (container ? container.tareMg / 1000 : 0)) * 1000) / 1000;
  });
  protected readonly shownG = computed(() => {
    const g = this.netG();
    return g === undefined ? '–' : this.grams(g);
  });
  protected readonly left = computed(() => Math.max(0, this.act().target - this.act().soFar));
  private readonly capacity = computed(() =>
    this.act().weighing.measure === 'weight'
      ? (this.state.around()?.room.balanceCapacityG ?? Infinity) * 1000
      : Infinity,
  );
  /** The next portion where the balance does not carry the whole: portions as alike as can be. */
  protected readonly toReach = computed(() => this.left() / Math.max(1, Math.ceil(this.left() / this.capacity())));
  protected readonly toleranceUnits = computed(
    () => this.act().weighing.tolerance * smallestIn(this.act().weighing.measure),
  );
  protected readonly portionLabel = computed(() => {
    const a = this.act();
    const parts = Math.ceil(this.left() / this.capacity());
    return a.portion > 1 || parts > 1
      ? $localize` · portion ${a.portion} of ${a.portion - 1 + Math.max(1, parts)}${a.soFar > 0 ? $localize`, ${this.amount(a.soFar, a.weighing.measure)} so far` : ''}`
      : '';
  });
  protected readonly batchLabel = computed(() => {
    const { weighing, step } = this.act();
    const batches = weighing.forBatches;
    const vessel =
      step.baths.find((b) => b.batches.includes(weighing.batch))?.vesselName ??
      this.lot().plan.batches.find((b) => b.number === weighing.batch)?.vesselName ??
      '';
    return `${batches.length > 1 ? $localize`batches ${batches.join($localize` and `)} together` : $localize`batch ${weighing.batch}`}, ${vessel}`;
  });
  /** What would be written down now, smallest units: what was typed, else what the balance shows. */
  private readonly reading = computed(() => {
    const { measure } = this.act().weighing;
    if (this.shown().trim() !== '') return readAmount(this.shown(), measure);
    const g = this.netG();
    return g === undefined
      ? undefined
      : g > 0
        ? { ok: true as const, amount: Math.round(g * 1000) }
        : { ok: false as const, message: '' };
  });
  /** Stock solutions of it that hold the dose. */
  protected readonly standing = computed(() =>
    this.act().weighing.solution && this.left() > 0
      ? this.lot().stockLots.flatMap(({ id, tag, onHand, solutionOf }) => {
          if (solutionOf?.materialId !== this.act().weighing.materialId || solutionOf.gPerL <= 0) return [];
          const takenMl = Math.round((this.left() / solutionOf.gPerL) * 10) / 10;
          return takenMl > 0 && takenMl * 1000 <= onHand
            ? [{ stockLotId: id, tag, takenMl, gPerL: solutionOf.gPerL }]
            : [];
        })
      : [],
  );
  /** The solution to make where none stands: booked whole with the dose, in one press. */
  protected readonly toMake = computed(() => {
    const { solution } = this.act().weighing;
    const fromStockLotId = this.stockLotId();
    if (!solution || fromStockLotId === '' || this.standing().length > 0 || this.act().soFar > 0) return undefined;
    const gPerL = (solution.dissolveG / solution.inMl) * 1000;
    const takenMl = Math.round((this.left() / gPerL) * 10) / 10;
    const made = { fromStockLotId, dissolvedG: solution.dissolveG, madeUpMl: solution.inMl };
    return takenMl > 0 && takenMl <= solution.inMl ? { stockLotId: newId(), takenMl, gPerL, made } : undefined;
  });
  protected readonly moreOffered = computed(() => {
    const r = this.reading();
    return r?.ok === true && r.amount < this.left() - this.toleranceUnits();
  });
  protected readonly offLabel = computed(() => {
    const reading = this.reading();
    if (!reading) return '';
    if (!reading.ok) return reading.message;
    const { measure } = this.act().weighing;
    const off = reading.amount - this.left();
    if (Math.abs(off) <= this.toleranceUnits()) return $localize`Within the tolerance.`;
    const by = formatAmount(Math.abs(off), measure);
    return off < 0 && this.shown().trim() === ''
      ? $localize`${by} to go.`
      : $localize`${by} ${off > 0 ? $localize`more` : $localize`less`} than planned. It is recorded as it is.`;
  });
  protected readonly mainLabel = computed(() =>
    this.onBalance() && this.shown().trim() === '' ? $localize`Take ${this.shownG()}` : $localize`Weighed`,
  );

  constructor() {
    // A balance that types like a keyboard finds the field ready.
    effect(() => {
      this.which();
      takeFocus(this.field()?.nativeElement, this.host.nativeElement);
    });
    effect(() => {
      if (this.armed() && this.onBalance()?.state === 'steady') untracked(() => this.keep(this.armedMore()));
    });
  }

  protected checkTag(event?: Event): void {
    event?.preventDefault();
    const typed = this.tag().trim();
    if (typed !== '') void this.findStockLot(typed);
  }

  private async findStockLot(typed: string): Promise<void> {
    const code = readTagCode(typed);
    let stockLot = this.lot().stockLots.find((j) => j.tag.toLowerCase() === typed.toLowerCase());
    if (!stockLot && code.ok) {
      const found = await firstValueFrom(this.api.get('/api/tags', { query: { code: typed } })).catch(
        (problem: ShownProblem) => problem.detail,
      );
      if (typeof found === 'string') {
        this.stockLotText.set(found);
        return;
      }
      stockLot = this.lot().stockLots.find((j) => j.id === found.stockLotId);
      if (!stockLot) {
        this.stockLotText.set(this.state.wrongStockLot(this.lot(), this.act().weighing, found.title));
        return;
      }
    }
    if (!stockLot)
      this.stockLotText.set(
        code.ok || code.code === 'notATag'
          ? this.state.wrongStockLot(this.lot(), this.act().weighing, typed)
          : code.message,
      );
    else if (stockLot.materialId !== this.act().weighing.materialId)
      this.stockLotText.set(this.state.wrongStockLot(this.lot(), this.act().weighing, stockLot.tag));
    else {
      this.stockLotId.set(stockLot.id);
      this.stockLotText.set(
        stockLot.id === this.act().pick.stockLotId
          ? $localize`${stockLot.tag}:tag:: the right jar.`
          : $localize`${stockLot.tag} holds ${this.act().weighing.materialName}, but another jar was planned. It is recorded from here.`,
      );
    }
  }

  /** Typed figures are taken as they stand; a live one when it stands still. */
  protected weigh(more = false): void {
    const pan = this.onBalance();
    if (pan && this.shown().trim() === '' && this.instruments.taken())
      this.problem.set({ detail: $localize`That was written down already. Take it off the pan, then weigh this out.` });
    else if (
      !pan ||
      this.shown().trim() !== '' ||
      pan.state === 'steady' ||
      pan.state === 'asleep' ||
      pan.state === 'lost'
    )
      this.keep(more);
    else if (pan.state === 'over' || pan.state === 'under') this.problem.set({ detail: pan.label });
    else {
      this.armedMore.set(more);
      this.armed.set(true);
    }
  }

  /** What was asked for, by one press: with wet hands, and nothing to type. */
  protected asAsked(): void {
    const [amount, { measure }] = [Math.round(this.toReach()), this.act().weighing];
    this.shown.set(
      measure === 'pieces' ? String(amount) : `${amount / smallestIn(measure)} ${measure === 'weight' ? 'g' : 'ml'}`,
    );
    this.keep(this.toReach() < this.left());
  }

  private keep(more: boolean): void {
    this.armed.set(false);
    const a = this.act();
    const net = this.netG();
    const typed = this.shown().trim() !== '';
    const quantityText = typed || net === undefined ? this.shown() : `${net} g`;
    const source = this.instruments.sourceOf('balance');
    this.busy.set(true);
    void this.state
      .record(a.lotId, a.step.index, {
        kind: 'weigh',
        weighing: {
          movementId: newId(),
          batch: a.weighing.batch,
          materialId: a.weighing.materialId,
          stockLotId: this.stockLotId() || null,
          quantityText,
        },
        detail: {
          ...(more ? { more: true } : {}),
          ...this.told(),
          readBy: typed ? 'hand' : source === 'serial' ? 'instrument' : 'simulated',
        },
      })
      .then((message) => {
        this.busy.set(false);
        this.problem.set(message === undefined ? undefined : { detail: message });
        if (message === undefined && !typed) this.instruments.markTaken();
      });
  }

  /** What was said beside the figure: fibre that was not dry, a jar whose books were wrong. */
  private told(): Pick<RunDetails['weigh'], 'notDry' | 'settles'> {
    const notDry = this.notDry();
    const settles = this.beyond() && this.settlesMore() ? 'more' : this.emptied() ? 'empty' : undefined;
    return { ...(notDry === '' ? {} : { notDry }), ...(settles ? { settles } : {}) };
  }

  protected takeSolution({ stockLotId, takenMl, gPerL, made }: SolutionTaken): void {
    const a = this.act();
    const { batch, materialId } = a.weighing;
    this.busy.set(true);
    void this.state
      .record(a.lotId, a.step.index, {
        kind: 'weigh',
        weighing: { movementId: newId(), batch, materialId, stockLotId, quantityText: this.ml(takenMl) },
        detail: { readBy: 'hand', solution: { stockLotId, takenMl, gPerL, ...(made ? { made } : {}) } },
      })
      .then((message) => {
        this.busy.set(false);
        this.problem.set(message === undefined ? undefined : { detail: message });
      });
  }

  protected leaveOut(): void {
    const a = this.act();
    void this.state
      .record(a.lotId, a.step.index, {
        kind: 'leaveOut',
        text: this.why(),
        detail: { batch: a.weighing.batch, materialId: a.weighing.materialId },
      })
      .then((message) => this.problem.set(message === undefined ? undefined : { detail: message }));
  }

  protected tare(): void {
    this.containerId.set('');
    this.instruments.order({ kind: 'balance', do: 'tare' }).subscribe();
  }

  protected remember(): void {
    const tareMg = Math.round((this.pan()?.weightG ?? 0) * 1000);
    this.api.post('/api/containers', { id: newId(), name: this.containerName(), tareMg }).subscribe({
      next: ({ id }) => {
        this.naming.set(false);
        this.containerId.set(id);
        this.problem.set(undefined);
      },
      error: (problem: ShownProblem) => this.problem.set(problem),
    });
  }

  protected readonly amount = formatAmount;
  protected readonly ml = formatVolume;
  /** As the balance shows it: in grams, to its step. */
  protected grams(g: number): string {
    const stepG = this.state.around()?.room.balanceStepG ?? 0.1;
    return `${g.toFixed(Math.max(0, Math.ceil(-Math.log10(stepG) - 1e-9)))} g`;
  }
}
