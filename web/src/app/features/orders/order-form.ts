import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { LotSummary, NewOrder, NewOrderLine, OrderDetail, OrderState } from '@vestigia/contract';
import type { Lab } from '@vestigia/core';
import { of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { openedOn, readAnewWhenStale } from '../../api/opened-on';
import { pageAction } from '../../api/page-action';
import { ActBar } from '../../ui/act-bar';
import { DayField } from '../../ui/day-field';
import { DayPicker } from '../../ui/day-picker';
import { DraftOf } from '../../ui/draft';
import { Meanwhile } from '../../ui/meanwhile';
import { NumberField } from '../../ui/number-field';
import { toChoose } from '../../ui/put-away-too';
import { ReaderFile } from '../../ui/reader-file';
import { RefusalNote } from '../../ui/refusal';
import { HowSoon } from './how-soon';
import { ORDER_STATE_LABELS } from '../../format/order-words';

/** A line as it is being written. */
interface LineDraft extends Omit<NewOrderLine, 'pieces' | 'brought'> {
  readonly pieces: number | null;
  readonly L: number | null;
  readonly a: number | null;
  readonly b: number | null;
}

const newLine = (): LineDraft => ({
  id: newId(),
  what: '',
  pieces: null,
  pieceWeightG: null,
  colourwayId: null,
  matchLotId: null,
  L: null,
  a: null,
  b: null,
  broughtNote: '',
  setOf: null,
  priceMinor: null,
  care: '',
});

const asDraft = ({ brought, ...l }: OrderDetail['lines'][number]): LineDraft => ({
  id: l.id,
  what: l.what,
  pieces: l.pieces,
  pieceWeightG: l.pieceWeightG,
  colourwayId: l.colourwayId,
  matchLotId: l.matchLotId,
  L: brought?.L ?? null,
  a: brought?.a ?? null,
  b: brought?.b ?? null,
  broughtNote: l.broughtNote,
  setOf: l.setOf,
  priceMinor: l.priceMinor,
  care: l.care,
});

/** A line in words, all that can be changed in it. */
const sayLine = ({ id: _id, ...l }: LineDraft): string =>
  [
    `${l.pieces} × ${l.what}`,
    ...Object.values({ ...l, pieces: null, what: null }).filter((v) => v !== null && v !== ''),
  ].join(', ');

/** Of a colour that was brought, a part is written. */
const isHalfRead = ({ L, a, b }: LineDraft): boolean => [L, a, b].some((v) => v !== null) && [L, a, b].includes(null);

/** The light and observer a colour that was brought is written down under. */
const BROUGHT_UNDER = { illuminant: 'D65', observer: '10' } as const;

/** Takes an order, or changes one: who, by when, and line by line what. */
@Component({
  selector: 'vs-order-form',
  imports: [
    ActBar,
    DayField,
    DayPicker,
    DraftOf,
    FormsModule,
    HowSoon,
    MatFormFieldModule,
    MatInputModule,
    Meanwhile,
    NumberField,
    ReaderFile,
    RefusalNote,
    RouterLink,
  ],
  templateUrl: './order-form.html',
  styles: `
    form {
      max-width: 60rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OrderFormPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  /** The order to change; none where one is taken. */
  readonly id = input<string | undefined>(undefined);
  /** The customer come from. */
  readonly customer = input<string | undefined>(undefined);

  protected readonly keeping = pageAction();
  protected readonly under = BROUGHT_UNDER;
  protected readonly stateLabels = ORDER_STATE_LABELS;
  protected readonly customers = liveQuery(['orders'], () => this.api.get('/api/customers'));
  private readonly colourways = liveQuery(['colourways'], () => this.api.get('/api/colourways'));
  private readonly lots = liveQuery(['lots'], () => this.api.get('/api/lots'));
  protected readonly before = liveQuery(
    ['orders'],
    () => {
      const id = this.id();
      return id === undefined ? of(undefined) : this.api.get('/api/orders/{id}', { id });
    },
    () => this.id(),
  );
  /** What the form stands on: it doesn't follow others while somebody writes. */
  protected readonly opened = openedOn(() => this.before.value(), {
    key: (o) => o.id,
    version: (o) => o.version,
    say: ({ wantedOn, state, note, lines }) => ({
      [$localize`Wanted by`]: wantedOn ?? '',
      [$localize`It is`]: ORDER_STATE_LABELS[state],
      [$localize`What is wanted`]: lines.map((l) => sayLine(asDraft(l))).join('; '),
      [$localize`Note`]: note,
    }),
  });

  protected readonly customerId = linkedSignal(() => this.customer() ?? '');
  protected readonly name = signal('');
  protected readonly reach = signal('');
  protected readonly wantedOn = linkedSignal(() => this.opened.value()?.wantedOn ?? '');
  protected readonly note = linkedSignal(() => this.opened.value()?.note ?? '');
  protected readonly state = linkedSignal<OrderState>(() => this.opened.value()?.state ?? 'agreed');
  protected readonly lines = linkedSignal<readonly LineDraft[]>(
    () => this.opened.value()?.lines.map(asDraft) ?? [newLine()],
  );
  private readonly orderId = newId();
  private readonly newCustomerId = newId();

  protected readonly known = computed(() => (this.customers.value() ?? []).filter((c) => c.erasedAt === null));
  protected readonly toChoose = computed(() => toChoose(this.colourways.value()));
  protected readonly states = computed<readonly OrderState[]>(() =>
    this.id() === undefined ? ['agreed', 'asked'] : ['agreed', 'asked', 'calledOff'],
  );
  protected readonly missing = computed(() => {
    if (this.id() === undefined && this.customerId() === '' && this.name().trim() === '')
      return $localize`Who wants it is still missing.`;
    if (this.lines().some((l) => l.what.trim() === '' || l.pieces === null))
      return $localize`What is wanted, and how many pieces, is still missing.`;
    return this.lines().some(isHalfRead) ? $localize`A colour they brought wants all three, L*, a* and b*.` : '';
  });

  constructor() {
    readAnewWhenStale(this.keeping, () => this.before.reload());
  }

  /** Lots of the colourway that were passed, the newest first: what can be matched. */
  protected matchable(line: LineDraft): readonly LotSummary[] {
    return (this.lots.value() ?? []).filter(
      (l) =>
        l.id === line.matchLotId ||
        (l.state === 'released' && (line.colourwayId === null || l.colourway.id === line.colourwayId)),
    );
  }

  protected set(i: number, said: Partial<LineDraft>): void {
    this.lines.update((all) => all.map((l, j) => (j === i ? { ...l, ...said } : l)));
  }

  protected read(i: number, { L, a, b }: Lab): void {
    this.opened.touch();
    this.set(i, { L, a, b });
  }

  protected addLine(): void {
    this.opened.touch();
    this.lines.update((all) => [...all, newLine()]);
  }

  protected removeLine(i: number): void {
    this.opened.touch();
    this.lines.update((all) => all.filter((_, j) => j !== i));
  }

  protected keep(): void {
    const lines = this.lines().map(({ L, a, b, pieces, ...l }): NewOrder['lines'][number] => ({
      ...l,
      // What isn’t written is said by the contract, in its own sentence.
      pieces: pieces ?? 0,
      brought: L === null || a === null || b === null ? null : { L, a, b, ...BROUGHT_UNDER },
    }));
    const said = { wantedOn: this.wantedOn() || null, note: this.note(), lines };
    const before = this.before.value();
    if (before) {
      this.keeping.run(
        this.api.put('/api/orders/{id}', { ...said, version: this.opened.version(), state: this.state() }, before.id),
        () => void this.router.navigate(['/orders', before.id]),
      );
      return;
    }
    const isNew = this.customerId() === '';
    const order: NewOrder = {
      id: this.orderId,
      customerId: isNew ? this.newCustomerId : this.customerId(),
      customer: isNew ? { name: this.name(), reach: this.reach() } : null,
      state: this.state() === 'asked' ? 'asked' : 'agreed',
      ...said,
    };
    this.keeping.run(this.api.post('/api/orders', order), ({ id }) => void this.router.navigate(['/orders', id]));
  }
}
