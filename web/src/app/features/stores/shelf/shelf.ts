import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import { of } from 'rxjs';
import { StudioCalendar } from '../../../services/studio-calendar';
import { ApiClient } from '../../../api/api-client';
import { liveQuery } from '../../../api/live-query';
import { ContextPanel } from '../../../services/context-panel';
import { inAddress } from '../../../services/in-address';
import { Amount } from '../../../format/amount';
import { RefusalNote } from '../../../ui/refusal';
import { When } from '../../../ui/when';
import type { MaterialKind, StockMeasure } from '@vestigia/core';
import { MATERIAL_KIND_LABELS } from '@vestigia/core';
import type { ShownRow } from './shelf-rows';
import { SHELF_COLUMNS, sayNeighbours, wantedRows } from './shelf-rows';
import { StoresNav } from '../stores-nav';
import { May } from '../../../ui/may';
import { ActBar } from '../../../ui/act-bar';
import type { Column } from '../../../ui/csv-button';
import { CsvButton } from '../../../ui/csv-button';
import { NgTemplateOutlet } from '@angular/common';
import { Printing } from '../../../services/printing';
import { Kept } from '../../../ui/kept';
import { jarsGave } from '../../../ui/jars-gave';
import { Swatch } from '../../../ui/swatch';
import { DayField } from '../../../ui/day-field';
import { DayPicker } from '../../../ui/day-picker';
import { ChosenJars } from './chosen-jars';
import { choosing } from '../../../ui/choosing';
import { ledgerView } from '../../../ui/ledger-view';
import { ViewMenu } from '../../../ui/view-menu';

/** How high a row is: more under a finger. */
const rowRem = (): number => (matchMedia('(pointer: coarse)').matches ? 3 : 2.125);

/** Every jar with what is on hand, promised and free: today, on a day that was, or on one to come. */
@Component({
  selector: 'vs-shelf',
  imports: [
    NgTemplateOutlet,
    ChosenJars,
    DayField,
    DayPicker,
    Swatch,
    Kept,
    CsvButton,
    ActBar,
    May,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    ScrollingModule,
    Amount,
    RefusalNote,
    When,
    StoresNav,
    ViewMenu,
  ],
  templateUrl: './shelf.html',
  styleUrl: './shelf.scss',
  host: { '[style.--row.px]': 'rowHeight()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ShelfPage {
  /** What its template says by what holds. */
  protected readonly says = {
    asItStood: $localize`The shelf as it stood at the end of that day.`,
    asItWillStand: $localize`A day to come: what is promised is taken out; what use without a promise may take is told under Looking ahead.`,
    choose: (tag: string | number): string => $localize`Choose ${tag}`,
    gaveLastOn: (tag: string | number, base: string | number): string => $localize`gave last, ${tag} on ${base}`,
    past: $localize` past`,
  };

  private readonly api = inject(ApiClient);
  protected readonly gave = jarsGave();
  private readonly contextPanel = inject(ContextPanel);
  protected readonly printing = inject(Printing);
  /** As it is taken along: amounts in grams, millilitres or pieces. */
  protected readonly taken: readonly Column<ShownRow>[] = [
    { head: 'tag', of: (r) => r.tag },
    { head: 'material', of: (r) => r.material },
    { head: 'kind', of: (r) => r.kind },
    { head: 'place', of: (r) => r.place },
    { head: 'unit', of: (r) => (r.measure === 'weight' ? 'g' : r.measure === 'volume' ? 'ml' : 'pieces') },
    { head: 'on hand', of: (r) => inWholeUnits(r.onHand, r.measure) },
    { head: 'promised', of: (r) => inWholeUnits(r.reserved, r.measure) },
    { head: 'free', of: (r) => inWholeUnits(r.free, r.measure) },
    { head: 'best before', of: (r) => r.bestBefore },
  ];
  protected readonly shelf = liveQuery(['stores'], () => this.api.get('/api/stores'));
  protected readonly on = inAddress('on');
  protected readonly other = liveQuery(
    ['stores'],
    () => (this.on() === '' ? of(undefined) : this.api.get('/api/stores/on', { query: { on: this.on() } })),
    () => this.on(),
  );
  protected readonly label = inAddress('find');
  protected readonly empty = inAddress('empty');
  protected readonly withEmpty = computed(() => this.empty() === 'too');
  private readonly today = inject(StudioCalendar).today();
  /** Rows keep one height whatever they hold, so that thousands can be scrolled; it follows the browser's text size. */
  protected readonly rowHeight = signal(rowRem() * parseFloat(getComputedStyle(document.documentElement).fontSize));

  protected readonly when = computed(() => this.other.value()?.when ?? 'today');
  protected readonly rows = computed((): readonly ShownRow[] | undefined => {
    const other = this.other.value();
    const kinds = new Map((this.shelf.value() ?? []).map((r) => [r.id, r]));
    if (other)
      return other.rows.map((r) => ({
        ...r,
        kind: kindLabel(kinds.get(r.id)?.kind),
        bestBefore: kinds.get(r.id)?.bestBefore ?? null,
        past: r.expired,
      }));
    return this.shelf
      .value()
      ?.map((r) => ({ ...r, kind: kindLabel(r.kind), past: r.bestBefore !== null && r.bestBefore < this.today }));
  });

  protected readonly view = ledgerView(SHELF_COLUMNS, 'material', () =>
    wantedRows(this.rows() ?? [], this.label(), this.withEmpty()),
  );
  protected readonly shown = this.view.sorted;

  protected readonly choosing = choosing(this.shown);
  protected readonly places = computed(() =>
    [...new Set((this.shelf.value() ?? []).map((r) => r.place).filter((p) => p !== ''))].sort(),
  );

  constructor() {
    effect(() => {
      const lines = sayNeighbours(this.shelf.value() ?? []);
      this.contextPanel.notes.set(lines.length === 0 ? [] : [{ title: $localize`Bad neighbours`, lines }]);
    });
  }

  protected readonly byId = (_i: number, row: ShownRow): string => row.id;

  /** Up and down go from jar to jar; the list scrolls along. */
  protected onKey(event: KeyboardEvent): void {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    const links = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('a')];
    const next =
      links[links.indexOf(document.activeElement as HTMLElement) + (event.key === 'ArrowDown' ? 1 : -1)] ??
      (document.activeElement === event.currentTarget ? links[0] : undefined);
    if (!next) return;
    next.focus();
    event.preventDefault();
  }
}

/** What a jar holds, as it is said, looked for and sorted by. */
const kindLabel = (kind: MaterialKind | undefined): string => (kind ? MATERIAL_KIND_LABELS[kind] : '');
const inWholeUnits = (amount: number, measure: StockMeasure): number => (measure === 'pieces' ? amount : amount / 1000);
