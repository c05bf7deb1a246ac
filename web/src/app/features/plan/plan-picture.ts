import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { StudioCalendar } from '../../services/studio-calendar';
import type { PlanBlock, PlanRow } from './plan-rows';

/** The moments a picture shows, epoch ms. */
export interface PlanWindow {
  readonly fromMs: number;
  readonly toMs: number;
}

const NUDGE_MS = 15 * 60_000;
/** A press that moves less than that is a press, no drag. */
const DRAG_PX = 6;
const READABLE_PERCENT = 4;
/** What 24 px are of the narrowest picture: so much of it has to be there to press. */
const PRESSED_SHARE = 0.045;

/**
 * The plan on a scale of time, a row for each lot, pot or person. Hands are solid, what goes on alone is open with the
 * lot’s colour along its foot, closed hours are hatched. A step is moved by dragging it, or by Alt with the arrows.
 */
@Component({
  selector: 'vs-plan-picture',
  imports: [RouterLink],
  templateUrl: './plan-picture.html',
  styleUrl: './plan-picture.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlanPicture {
  private readonly calendar = inject(StudioCalendar);
  readonly rows = input.required<readonly PlanRow[]>();
  readonly window = input.required<PlanWindow>();
  readonly nowMs = input.required<number>();
  /** Hours the house is open, epoch ms. */
  readonly open = input.required<readonly (readonly [number, number])[]>();
  /** What colour each lot has on a screen, by its tag. */
  readonly colours = input.required<ReadonlyMap<string, string>>();
  readonly selected = input<string | undefined>();
  readonly chosen = output<string>();
  readonly moved = output<{ stepId: string; toMs: number }>();
  /** The lot whose step is chosen: its other steps are told from the rest. */
  protected readonly chosenTag = computed(
    () =>
      this.rows()
        .flatMap((r) => r.blocks)
        .find((b) => b.stepId === this.selected())?.lotTag,
  );
  private drag: { readonly x: number; readonly stepId: string; readonly fromMs: number } | undefined;

  protected readonly says = {
    block: (b: PlanBlock): string => {
      const [from, to] = [b.fromMs, b.toMs].map((ms) => this.calendar.formatMoment(new Date(ms).toISOString()));
      return $localize`${b.lotTag}, ${b.title}, ${from} to ${to}`;
    },
  };

  protected readonly days = computed(() => {
    const { fromMs, toMs } = this.window();
    const days: { left: number; width: number; name: string }[] = [];
    const midnights = [fromMs, ...this.calendar.hoursWithin(fromMs + 1, toMs, 24), toMs];
    midnights.slice(0, -1).forEach((at, i) => {
      const to = midnights[i + 1] ?? toMs;
      days.push({
        left: this.at(at),
        width: this.at(to) - this.at(at),
        name: this.calendar.formatWeekday(new Date(at).toISOString()),
      });
    });
    return days;
  });
  /** The hours between, as parts of the window from its left edge, per cent. */
  protected readonly closed = computed(() => {
    const { fromMs, toMs } = this.window();
    const closed: { left: number; width: number }[] = [];
    let from = fromMs;
    for (const [opens, closes] of this.open()) {
      if (closes <= fromMs || opens >= toMs) continue;
      if (opens > from) closed.push({ left: this.at(from), width: this.at(opens) - this.at(from) });
      from = closes;
    }
    if (from < toMs) closed.push({ left: this.at(from), width: this.at(toMs) - this.at(from) });
    return closed;
  });
  protected readonly shown = computed(() => {
    const { fromMs, toMs } = this.window();
    const isIn = (b: { fromMs: number; toMs: number }): boolean => b.toMs > fromMs && b.fromMs < toMs;
    return this.rows().map((row) => {
      const blocks = row.blocks.filter(isIn);
      return {
        row,
        blocks: this.stacked(blocks),
        held: row.held.filter(isIn),
        was: row.was.filter(isIn),
        thread: row.thread && isIn(row.thread) ? row.thread : undefined,
        lanes: this.lanes(blocks),
      };
    });
  });

  /** Per cent of the window from its left edge, kept within it. */
  protected at(ms: number): number {
    const { fromMs, toMs } = this.window();
    return Math.min(100, Math.max(0, ((ms - fromMs) / (toMs - fromMs)) * 100));
  }

  /** Whether what it is called can be read on it. */
  protected isWide(block: PlanBlock): boolean {
    return this.at(block.toMs) - this.at(block.fromMs) >= READABLE_PERCENT;
  }

  protected place({ fromMs, toMs }: { fromMs: number; toMs: number }): { left: string; width: string } {
    return { left: `${this.at(fromMs)}%`, width: `${this.at(toMs) - this.at(fromMs)}%` };
  }

  /** Where a block stands: one that begins at the very edge is still there to press. */
  protected placeBlock(block: PlanBlock): { left: string; width: string } {
    return { ...this.place(block), left: `${Math.min(this.at(block.fromMs), 100 - PRESSED_SHARE * 100)}%` };
  }

  /** A part of a block, per cent of the block as far as it is in sight. */
  protected within(block: PlanBlock, part: { fromMs: number; toMs: number }): { left: string; width: string } {
    const [from, to] = [this.at(block.fromMs), this.at(block.toMs)];
    const share = (ms: number): number => (to > from ? ((this.at(ms) - from) / (to - from)) * 100 : 0);
    return { left: `${share(part.fromMs)}%`, width: `${share(part.toMs) - share(part.fromMs)}%` };
  }

  /** Blocks that share a moment stand under one another. */
  private stacked(blocks: readonly PlanBlock[]): { block: PlanBlock; lane: number }[] {
    const { fromMs, toMs } = this.window();
    const ends: number[] = [];
    return [...blocks]
      .sort((a, b) => a.fromMs - b.fromMs)
      .map((block) => {
        const free = ends.findIndex((end) => end <= block.fromMs);
        const lane = free < 0 ? ends.length : free;
        ends[lane] = Math.max(block.toMs, block.fromMs + (toMs - fromMs) * PRESSED_SHARE);
        return { block, lane };
      });
  }

  private lanes(blocks: readonly PlanBlock[]): number {
    return Math.max(1, ...this.stacked(blocks).map((s) => s.lane + 1));
  }

  protected nudge(block: PlanBlock, event: Event, by: number): void {
    if (block.isFact) return;
    event.preventDefault();
    this.moved.emit({ stepId: block.stepId, toMs: block.fromMs + by * NUDGE_MS });
  }

  protected take(block: PlanBlock, event: PointerEvent): void {
    if (block.isFact || event.button !== 0) return;
    this.drag = { x: event.clientX, stepId: block.stepId, fromMs: block.fromMs };
    (event.target as HTMLElement).setPointerCapture(event.pointerId);
  }

  protected drop(event: PointerEvent, track: HTMLElement): void {
    const { drag } = this;
    this.drag = undefined;
    const by = drag ? event.clientX - drag.x : 0;
    if (!drag || Math.abs(by) < DRAG_PX) return;
    const { fromMs, toMs } = this.window();
    const ms = (by / track.clientWidth) * (toMs - fromMs);
    this.moved.emit({ stepId: drag.stepId, toMs: drag.fromMs + Math.round(ms / NUDGE_MS) * NUDGE_MS });
  }
}
