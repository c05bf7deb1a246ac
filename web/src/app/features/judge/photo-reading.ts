import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LabUnder, LotDetail } from '@vestigia/contract';
import type { ColourConditions, MeasuredArea, ReadingState, Rect, ShadeOf, Taken } from '@vestigia/core';
import {
  WHOLE,
  READING_STATES,
  describeColour,
  hueDegrees,
  sayPhotoRefusal,
  sayTaken,
  takenBy,
  underConditions,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { NumberField } from '../../ui/number-field';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { PhotoMeasurer } from './photo-measurer';
import { ShadeChoice } from '../../ui/shade-choice';

/** A part of the picture that somebody marked: the card, or a piece. */
interface Marked {
  readonly id: string;
  readonly kind: 'card' | 'piece';
  readonly rect: Rect;
}

interface Found {
  readonly id: string;
  readonly under: LabUnder;
  readonly taken: Taken;
  readonly said: string;
  readonly isYellow: boolean;
  readonly shade: ShadeOf;
  readonly kept: boolean;
}

/** L* of the usual grey card, which throws back 18 % of the light. */
const GREY_CARD_L = 49.5;
const LEAST_DRAG_PX = 6;
const EDGES = ['x', 'y', 'width', 'height'] as const;
const EDGE_LABELS = { x: 'Left', y: 'Top', width: 'Width', height: 'Height' } as const;

/** A reading from a photograph: a grey card and the pieces are marked in it, and a worker says what they are. */
@Component({
  selector: 'vs-photo-reading',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, NumberField, RefusalNote, ShadeChoice, Swatch],
  providers: [PhotoMeasurer],
  templateUrl: './photo-reading.html',
  styleUrl: './photo-reading.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PhotoReading {
  private readonly api = inject(ApiClient);
  private readonly measurer = inject(PhotoMeasurer);
  readonly lot = input.required<LotDetail>();
  /** The light and observer that the lot is read in. */
  readonly conditions = input.required<ColourConditions>();
  readonly changed = output();
  private readonly canvas = viewChild<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly states = READING_STATES;
  protected readonly edges = EDGES;
  protected readonly edgeLabel = EDGE_LABELS;
  protected readonly label = describeColour;
  protected readonly keeping = pageAction();
  protected readonly bitmap = signal<ImageBitmap | undefined>(undefined);
  protected readonly marked = signal<readonly Marked[]>([]);
  protected readonly marking = signal<Marked['kind']>('card');
  protected readonly cardL = signal<number | null>(GREY_CARD_L);
  protected readonly state = signal<ReadingState>('dry');
  protected readonly busy = signal(false);
  protected readonly problem = signal<{ readonly detail: string } | undefined>(undefined);
  protected readonly found = signal<readonly Found[]>([]);
  /** Where a drag began, and where it is now, in the picture's pixels. */
  private readonly drag = signal<{ readonly from: [number, number]; readonly to: [number, number] } | undefined>(
    undefined,
  );
  protected readonly whyNot = computed(() => {
    const kinds = this.marked().map((m) => m.kind);
    if (!kinds.includes('card')) return 'Mark the grey card first: drag across it.';
    if (!kinds.includes('piece')) return 'Mark a piece: drag across a plain part of it.';
    return this.cardL() === null ? 'Write how light the card is.' : '';
  });
  protected readonly names = computed(() => {
    let pieces = 0;
    return new Map(
      this.marked().map((m) => [m.id, m.kind === 'card' ? 'grey card' : `piece ${String.fromCharCode(64 + ++pieces)}`]),
    );
  });

  /** What is drawn over the picture: what is marked, and what is being dragged. */
  protected readonly areas = computed(() => {
    const d = this.drag();
    return [
      ...this.marked().map(({ id, rect }) => ({ name: this.names().get(id) ?? '', rect })),
      ...(d ? [{ name: '', rect: rectOf(d.from, d.to) }] : []),
    ];
  });

  protected async choose(event: Event): Promise<void> {
    const file = (event.target as HTMLInputElement).files?.[0];
    if (!file) return;
    this.problem.set(undefined);
    this.marked.set([]);
    this.found.set([]);
    this.marking.set('card');
    try {
      this.bitmap.set(await this.measurer.open(file));
    } catch {
      this.bitmap.set(undefined);
      this.problem.set({ detail: 'The picture can’t be opened. Save it as JPEG or PNG, or take it again.' });
      return;
    }
    requestAnimationFrame(() => this.draw());
  }

  /** Shows the picture no wider than the page; what is measured is the whole of it. */
  private draw(): void {
    const [canvas, bitmap] = [this.canvas()?.nativeElement, this.bitmap()];
    if (!canvas || !bitmap) return;
    const scale = Math.min(1, 1200 / bitmap.width);
    canvas.width = Math.round(bitmap.width * scale);
    canvas.height = Math.round(bitmap.height * scale);
    canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  }

  protected readonly percent = (rect: Rect): Record<string, number> => {
    const { width, height } = this.bitmap() ?? { width: 1, height: 1 };
    return {
      left: (100 * rect.x) / width,
      top: (100 * rect.y) / height,
      width: (100 * rect.width) / width,
      height: (100 * rect.height) / height,
    };
  };

  protected point(event: PointerEvent, phase: 'down' | 'move' | 'up'): void {
    const [frame, bitmap] = [event.currentTarget as HTMLElement, this.bitmap()];
    if (!bitmap) return;
    const box = frame.getBoundingClientRect();
    const within = (share: number, length: number): number => Math.round(Math.min(1, Math.max(0, share)) * length);
    const at: [number, number] = [
      within((event.clientX - box.left) / box.width, bitmap.width),
      within((event.clientY - box.top) / box.height, bitmap.height),
    ];
    if (phase === 'down') {
      frame.setPointerCapture(event.pointerId);
      this.drag.set({ from: at, to: at });
      return;
    }
    const d = this.drag();
    if (!d) return;
    if (phase === 'move') {
      this.drag.set({ ...d, to: at });
      return;
    }
    this.drag.set(undefined);
    const rect = rectOf(d.from, at);
    if (Math.min(rect.width, rect.height) >= LEAST_DRAG_PX) this.mark(rect);
  }

  /** Without a pointer: a part in the middle, to be moved by its figures. */
  protected markMiddle(): void {
    const { width, height } = this.bitmap() ?? { width: 0, height: 0 };
    this.mark({
      x: Math.round(width * 0.4),
      y: Math.round(height * 0.4),
      width: Math.round(width * 0.2),
      height: Math.round(height * 0.2),
    });
  }

  private mark(rect: Rect): void {
    const kind = this.marking();
    this.marked.update((all) => [
      ...all.filter((m) => kind === 'piece' || m.kind === 'piece'),
      { id: newId(), kind, rect },
    ]);
    this.marking.set('piece');
    this.found.set([]);
  }

  protected move(id: string, edge: (typeof EDGES)[number], value: number | null): void {
    if (value === null) return;
    this.marked.update((all) => all.map((m) => (m.id === id ? { ...m, rect: { ...m.rect, [edge]: value } } : m)));
    this.found.set([]);
  }

  protected drop(id: string): void {
    this.marked.update((all) => all.filter((m) => m.id !== id));
    this.found.set([]);
  }

  protected async measure(): Promise<void> {
    const [bitmap, L] = [this.bitmap(), this.cardL()];
    if (!bitmap || L === null || this.whyNot() !== '') return;
    this.busy.set(true);
    this.problem.set(undefined);
    const marked = this.marked();
    try {
      const measured = await this.measurer.measure({
        bitmap,
        known: marked.filter((m) => m.kind === 'card').map(({ rect }) => ({ rect, lab: { L, a: 0, b: 0 } })),
        wanted: marked
          .filter((m) => m.kind === 'piece')
          .map(({ id, rect }) => ({ rect, name: this.names().get(id) ?? '' })),
      });
      if (measured.ok) this.found.set(measured.areas.map((area) => this.foundOf(area)));
      else this.problem.set({ detail: sayPhotoRefusal(measured.refusal) });
    } catch {
      this.problem.set({ detail: 'The picture could not be measured here. Take a smaller one, and try again.' });
    } finally {
      this.busy.set(false);
    }
  }

  private foundOf(area: MeasuredArea): Found {
    // A master is conditions too, and has a colour of its own.
    const { illuminant, observer } = this.conditions();
    const conditions = { illuminant, observer };
    const { lab, within80 } = underConditions(area, conditions);
    const taken = takenBy('photo', { within80, evenness: area.evenness });
    const hue = hueDegrees(lab);
    return {
      id: area.name,
      under: { ...lab, ...conditions },
      taken,
      said: sayTaken(taken),
      isYellow: hue > 75 && hue < 110 && Math.hypot(lab.a, lab.b) > 40,
      shade: WHOLE,
      kept: false,
    };
  }

  protected setShade(id: string, shade: ShadeOf): void {
    this.found.update((all) => all.map((f) => (f.id === id ? { ...f, shade } : f)));
  }

  protected keep({ id, shade, under, taken }: Found): void {
    const round = (value: number): number => Math.round(value * 100) / 100;
    const { illuminant, observer } = under;
    const body = {
      id: newId(),
      ...shade,
      state: this.state(),
      lab: { L: round(under.L), a: round(under.a), b: round(under.b) },
      illuminant,
      observer,
      taken,
      note: '',
      replacesId: null,
    };
    this.keeping.run(this.api.post('/api/lots/{id}/readings', body, this.lot().summary.id), () => {
      this.found.update((all) => all.map((f) => (f.id === id ? { ...f, kept: true } : f)));
      this.changed.emit();
    });
  }
}

const rectOf = ([x0, y0]: readonly [number, number], [x1, y1]: readonly [number, number]): Rect => ({
  x: Math.min(x0, x1),
  y: Math.min(y0, y1),
  width: Math.abs(x1 - x0),
  height: Math.abs(y1 - y0),
});
