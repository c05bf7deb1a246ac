import type { AfterViewInit, OnDestroy } from '@angular/core';
import { Directive, ElementRef, computed, inject, input, signal } from '@angular/core';
import { Printing } from '../services/printing';

/** A table shorter than this is drawn whole: nothing is gained by less. */
const WHOLE_TO = 40;
/** Drawn beyond what is in sight, so that Tab finds the next row and a turn of the wheel no gap. */
const BEYOND = 8;
const STEP = 4;
const SHEET_AT_FIRST = 0.5;
/** Drawn at once when the page begins, so that it doesn’t stand still; the rest comes frame by frame. */
const ROWS_A_FRAME = 8;
const ROW_PX_AT_FIRST = 36;

/**
 * Of a long table only the rows near those in sight are drawn; the room of the others is kept by `above` and `below`.
 * On paper it stands there whole. Its rows are about of one height.
 */
@Directive({
  selector: 'table[vsRowWindow]',
  exportAs: 'vsRowWindow',
  host: {
    '[attr.aria-rowcount]': 'isPart() ? count() + 1 : null',
    '[class.part]': 'isPart()',
    // Its rows come and go: the browser holds the page still by none of them.
    '[style.overflow-anchor]': "isPart() ? 'none' : null",
  },
})
export class RowWindow implements AfterViewInit, OnDestroy {
  /** How many rows there are. */
  readonly count = input.required<number>({ alias: 'vsRowWindow' });
  private readonly host = inject<ElementRef<HTMLTableElement>>(ElementRef).nativeElement;
  private readonly printing = inject(Printing);
  private readonly rowPx = signal(ROW_PX_AT_FIRST);
  /** Before anything is laid out, what a sheet shows below its heads is enough. */
  private readonly place = signal({ topPx: 0, heightPx: window.innerHeight * SHEET_AT_FIRST });
  private readonly beyond = signal(0);
  /** So many rows are drawn by now. */
  private readonly drawn = signal(ROWS_A_FRAME);
  /** Not where nothing is laid out, as in a test without a browser. */
  private readonly watch = 'ResizeObserver' in window ? new ResizeObserver(() => this.soon()) : undefined;
  private frame = 0;

  /** Whether some of it isn’t drawn. */
  readonly isPart = computed(() => this.count() > WHOLE_TO && !this.printing.on());
  readonly first = computed(() => {
    if (!this.isPart()) return 0;
    const passed = Math.floor(this.place().topPx / this.rowPx()) - this.beyond();
    // By fours, so that not every turn of the wheel draws anew.
    return Math.max(0, Math.min(passed - (passed % STEP), this.count() - 1));
  });
  private readonly inSight = computed(() => Math.ceil(this.place().heightPx / this.rowPx()) + 2 * this.beyond() + STEP);
  readonly end = computed(() =>
    this.isPart() ? Math.min(this.count(), this.first() + Math.min(this.inSight(), this.drawn())) : this.count(),
  );
  readonly abovePx = computed(() => this.first() * this.rowPx());
  readonly belowPx = computed(() => (this.count() - this.end()) * this.rowPx());
  /** How many columns stand there just now. */
  columns(): number {
    return this.host.tHead?.rows[0]?.cells.length ?? 1;
  }

  private readonly soon = (): void => {
    if (this.frame === 0 && this.isPart()) this.frame = requestAnimationFrame(() => this.look());
  };

  ngAfterViewInit(): void {
    // Whatever the table lies in may move: the sheet, or the page itself on a telephone.
    document.addEventListener('scroll', this.soon, { capture: true, passive: true });
    this.watch?.observe(this.host);
  }

  ngOnDestroy(): void {
    document.removeEventListener('scroll', this.soon, { capture: true });
    this.watch?.disconnect();
    cancelAnimationFrame(this.frame);
  }

  private look(): void {
    this.frame = 0;
    const body = this.host.tBodies[0];
    if (!body || !this.isPart()) return;
    const rows = [...body.rows].filter((r) => !r.classList.contains('gap'));
    const [top, bottom] = [rows[0]?.getBoundingClientRect().top, rows.at(-1)?.getBoundingClientRect().bottom];
    if (top !== undefined && bottom !== undefined && bottom > top) {
      const rowPx = (bottom - top) / rows.length;
      if (Math.abs(rowPx - this.rowPx()) > 0.5) this.rowPx.set(rowPx);
    }
    const place = { topPx: Math.max(0, -body.getBoundingClientRect().top), heightPx: window.innerHeight };
    this.beyond.set(BEYOND);
    const { topPx, heightPx } = this.place();
    if (place.topPx !== topPx || place.heightPx !== heightPx) this.place.set(place);
    if (this.drawn() >= this.inSight()) return;
    this.drawn.update((before) => before + ROWS_A_FRAME);
    this.soon();
  }
}
