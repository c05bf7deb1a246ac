import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import { of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { Margin } from '../../shell/margin';
import { Amount } from '../../ui/amount';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import type { ShelfColumn, ShownRow } from './shelf-rows';
import { sayNeighbours, wantedRows } from './shelf-rows';
import { StoresNav } from './stores-nav';

/** One column may be sorted by several things: what a jar holds, what that is, and where it stands share one. */
const COLUMNS: readonly { by: readonly { column: ShelfColumn; name: string }[]; number?: true }[] = [
  { by: [{ column: 'tag', name: 'Tag' }] },
  {
    by: [
      { column: 'material', name: 'Material' },
      { column: 'kind', name: 'kind' },
      { column: 'place', name: 'place' },
    ],
  },
  { by: [{ column: 'onHand', name: 'On hand' }], number: true },
  { by: [{ column: 'promised', name: 'Promised' }], number: true },
  { by: [{ column: 'free', name: 'Free' }], number: true },
  { by: [{ column: 'bestBefore', name: 'Best before' }] },
];

/** Every jar with what is on hand, promised and free: today, on a day that was, or on one to come. */
@Component({
  selector: 'vs-shelf',
  imports: [
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    ScrollingModule,
    Amount,
    RefusalNote,
    When,
    StoresNav,
  ],
  template: ` <div class="head">
      <h1>Stores</h1>
      <div class="actions">
        <a class="act main" routerLink="/stores/delivery">Book in</a
        ><a class="act" routerLink="/stores/convert">Change a form</a
        ><a class="act" routerLink="/stores/liquor">Keep a liquor</a>
      </div>
    </div>
    <vs-stores-nav />
    <vs-refusal [problem]="shelf.problem() ?? other.problem()" />
    @if (rows(); as all) {
      @if (all.length === 0 && on() === '') {
        <div class="empty">
          <p>
            Every jar, bag and bale stands here with what is on hand, what is promised to lots and what is free. It
            begins with what a jar holds, and then its first delivery.
          </p>
          <a class="act main" routerLink="/stores/material">A new material</a>
        </div>
      } @else {
        <div class="filters">
          <mat-form-field class="words" subscriptSizing="dynamic"
            ><mat-label>Only jars with …</mat-label
            ><input matInput [(ngModel)]="words" name="words" placeholder="material, tag or place"
          /></mat-form-field>
          <mat-form-field class="day" subscriptSizing="dynamic"
            ><mat-label>As it stands on</mat-label><input matInput type="date" [(ngModel)]="on" name="on"
          /></mat-form-field>
          <label class="tick"><input type="checkbox" [(ngModel)]="withEmpty" name="empty" /> empty jars too</label>
          <p class="soft small">{{ shown().length }} of {{ all.length }} jars</p>
        </div>
        @if (when() !== 'today') {
          <p class="refs">
            <strong>{{
              when() === 'past'
                ? 'The shelf as it stood at the end of that day.'
                : 'A day to come: what is promised is taken out; what use without a promise may take is told under Looking ahead.'
            }}</strong>
            <button class="plain" type="button" (click)="on.set('')">Back to now</button>
          </p>
        }
        <div class="scroller" role="table" aria-label="Jars" [attr.aria-rowcount]="shown().length + 1">
          <div role="rowgroup">
            <div class="line top" role="row" aria-rowindex="1">
              @for (c of columns; track $index) {
                <span role="columnheader" [class.number]="c.number" [attr.aria-sort]="sortOf(c.by)">
                  @for (b of c.by; track b.column) {
                    <button type="button" (click)="sortBy(b.column)" [class.by]="order().column === b.column">
                      {{ b.name }}
                    </button>
                  }
                </span>
              }
            </div>
          </div>
          <cdk-virtual-scroll-viewport
            [itemSize]="rowHeight()"
            minBufferPx="600"
            maxBufferPx="1200"
            role="rowgroup"
            tabindex="0"
            aria-label="Rows of jars; scroll for more"
            (keydown)="onKey($event)"
          >
            <div
              class="line"
              *cdkVirtualFor="let jar of shown(); let i = index; trackBy: byId"
              role="row"
              [attr.aria-rowindex]="i + 2"
              [class.mark]="jar.free < 0"
            >
              <span role="cell"
                ><a [routerLink]="['/stores', jar.id]"
                  ><strong>{{ jar.tag }}</strong></a
                ></span
              ><span role="cell"
                >{{ jar.material }}<br /><span class="small soft"
                  >{{ jar.kind }}{{ jar.place ? ' · ' + jar.place : '' }}</span
                ></span
              >
              <span role="cell" class="number">{{ jar.onHand | amount: jar.measure }}</span><span
                role="cell"
                class="number"
                >{{ jar.promised === 0 ? '–' : (jar.promised | amount: jar.measure) }}</span
              >
              <span role="cell" class="number"
                ><strong>{{ jar.free | amount: jar.measure }}</strong>
                @if (jar.free < 0) {
                  <span class="small"> short</span>
                }
              </span>
              <span role="cell" class="day" [class.hatched]="jar.past"
                ><span>{{ jar.bestBefore | when }}{{ jar.past ? ' past' : '' }}</span></span
              >
            </div>
          </cdk-virtual-scroll-viewport>
        </div>
      }
    }`,
  styleUrl: './shelf.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ShelfPage {
  private readonly api = inject(ApiClient);
  private readonly margin = inject(Margin);
  protected readonly columns = COLUMNS;
  protected readonly shelf = live(['stores'], () => this.api.get('/api/stores'));
  protected readonly on = signal('');
  protected readonly other = live(
    ['stores'],
    () => (this.on() === '' ? of(undefined) : this.api.get('/api/stores/on', { query: { on: this.on() } })),
    () => this.on(),
  );
  protected readonly words = signal('');
  protected readonly withEmpty = signal(false);
  protected readonly order = signal<{ column: ShelfColumn; up: boolean }>({ column: 'material', up: true });
  private readonly today = new Date().toISOString().slice(0, 10);
  /** Rows keep one height whatever they hold, so that thousands can be scrolled; it follows the browser's text size. */
  protected readonly rowHeight = signal(3.25 * parseFloat(getComputedStyle(document.documentElement).fontSize));

  protected readonly when = computed(() => this.other.value()?.when ?? 'today');
  protected readonly rows = computed((): readonly ShownRow[] | undefined => {
    const other = this.other.value();
    const kinds = new Map((this.shelf.value() ?? []).map((r) => [r.id, r]));
    if (other)
      return other.rows.map((r) => ({
        ...r,
        kind: kinds.get(r.id)?.kind ?? '',
        bestBefore: kinds.get(r.id)?.bestBefore ?? null,
        past: r.expired,
      }));
    return this.shelf.value()?.map((r) => ({ ...r, past: r.bestBefore !== null && r.bestBefore < this.today }));
  });

  protected readonly shown = computed(() =>
    wantedRows(this.rows() ?? [], { words: this.words(), withEmpty: this.withEmpty(), ...this.order() }),
  );

  constructor() {
    effect(() => {
      const lines = sayNeighbours(this.shelf.value() ?? []);
      this.margin.notes.set(lines.length === 0 ? [] : [{ title: 'Bad neighbours', lines }]);
    });
  }

  protected readonly byId = (_i: number, row: ShownRow): string => row.id;

  protected sortBy(column: ShelfColumn): void {
    this.order.update((o) => ({ column, up: o.column === column ? !o.up : true }));
  }

  protected sortOf(by: readonly { column: ShelfColumn }[]): 'ascending' | 'descending' | null {
    const { column, up } = this.order();
    return by.some((b) => b.column === column) ? (up ? 'ascending' : 'descending') : null;
  }

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
