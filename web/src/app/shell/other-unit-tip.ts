import { ChangeDetectionStrategy, Component, DestroyRef, ElementRef, inject, signal } from '@angular/core';
import { figuresElsewhere } from '@vestigia/core';

/** How long the pointer rests on a figure before it is told otherwise. */
const DWELL_MS = 350;
/** More text than that is no figure one is at. */
const LONGEST = 200;
/** How far below what it tells of the tip stands, and how near to the edge of the window, px. */
const GAP_PX = 4;
const ROOM_PX = 260;

interface Tip {
  readonly text: string;
  /** What it tells of. */
  readonly of: DOMRect;
  readonly leftPx: number;
  readonly topPx: number;
}

/**
 * Says a figure in the units the studio doesn’t read, wherever it stands on the page: while the pointer rests on it, or
 * the keyboard is at something that shows one. Escape or going on takes it away.
 */
@Component({
  selector: 'vs-other-unit-tip',
  template: `@if (tip(); as t) {
    <p role="tooltip" class="noprint" [style.left.px]="t.leftPx" [style.top.px]="t.topPx">{{ t.text }}</p>
  }`,
  styles: `
    p {
      position: fixed;
      z-index: 1100;
      margin: 0;
      padding: 0.2rem 0.6rem;
      max-width: 16rem;
      background: var(--ink);
      color: var(--sheet);
      font-size: 0.9375rem;
      font-variant-numeric: tabular-nums;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OtherUnitTip {
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly tip = signal<Tip | undefined>(undefined);
  /** Whoever presses with a pointer sees where it is, and wants nothing in the way. */
  private byKeys = true;
  private keyboardAt: Element | undefined;
  private resting: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    const ends = new AbortController();
    const { signal } = ends;
    document.addEventListener('pointermove', (e) => this.moved(e), { signal });
    document.addEventListener('focusin', (e) => this.focused(e.target), { signal });
    for (const gone of ['focusout', 'pointerdown'] as const)
      document.addEventListener(gone, () => this.hide(), { signal, capture: true });
    document.addEventListener('scroll', () => this.scrolled(), { signal, capture: true });
    document.addEventListener('pointerdown', () => (this.byKeys = false), { signal, capture: true });
    document.addEventListener('keydown', (e) => this.pressed(e), { signal, capture: true });
    inject(DestroyRef).onDestroy(() => {
      ends.abort();
      this.hide();
    });
  }

  private pressed({ key }: KeyboardEvent): void {
    this.byKeys = true;
    if (key === 'Escape') this.hide();
  }

  /** What the keyboard goes to is brought into sight, so the tip goes along; the pointer rests on something else now. */
  private scrolled(): void {
    const { tip, keyboardAt } = this;
    if (tip() && keyboardAt) this.show(tip()?.text ?? '', keyboardAt.getBoundingClientRect());
    else this.hide();
  }

  private moved({ pointerType, target, clientX: x, clientY: y }: PointerEvent): void {
    // A finger rests on nothing; and the tip itself may be gone to.
    if (pointerType === 'touch' || this.host.contains(target as Node)) return;
    const shown = this.tip();
    if (shown && holds(shown.of, x, y)) return;
    this.hide();
    this.resting = setTimeout(() => this.lookUnder(x, y), DWELL_MS);
  }

  private lookUnder(x: number, y: number): void {
    const at = document.caretPositionFromPoint?.(x, y);
    const text = at?.offsetNode;
    if (!at || !(text instanceof Text)) return;
    for (const { from, to, other } of figuresElsewhere(text.data)) {
      if (at.offset < from || at.offset > to) continue;
      const range = document.createRange();
      range.setStart(text, from);
      range.setEnd(text, to);
      const of = range.getBoundingClientRect();
      // Beside the last sign of a line the text’s end is the nearest, however far it is.
      if (holds(of, x, y)) this.show(other, of);
    }
  }

  private focused(target: EventTarget | null): void {
    if (!(target instanceof Element) || !this.byKeys) return;
    const text = target.textContent;
    if (text.length > LONGEST) return;
    const others = [...new Set(figuresElsewhere(text).map((f) => f.other))];
    if (others.length === 0) return;
    this.keyboardAt = target;
    this.show(others.join(' · '), target.getBoundingClientRect());
  }

  private show(text: string, of: DOMRect): void {
    const leftPx = Math.max(0, Math.min(of.left, innerWidth - ROOM_PX));
    this.tip.set({ text, of, leftPx, topPx: of.bottom + GAP_PX });
  }

  private hide(): void {
    clearTimeout(this.resting);
    this.keyboardAt = undefined;
    this.tip.set(undefined);
  }
}

const holds = (box: DOMRect, x: number, y: number): boolean =>
  x >= box.left && x <= box.right && y >= box.top && y <= box.bottom + GAP_PX;
