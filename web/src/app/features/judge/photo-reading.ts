import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LabUnder, LotDetail } from '@vestigia/contract';
import type { ColourConditions, MeasuredArea, ReadingState, Rect, ShadeOf, Taken } from '@vestigia/core';
import {
  WHOLE,
  READING_STATES,
  describeColour,
  formatClock,
  formatDay,
  hueDegrees,
  sayTaken,
  takenBy,
  underConditions,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { NumberField } from '../../ui/number-field';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import type { MeasuredPiece } from './photo-desk';
import { PhotoDesk } from './photo-desk';
import { PhotoMeasurer } from './photo-measurer';
import { ShadeChoice } from '../../ui/shade-choice';
import { Decimals } from '../../ui/decimals';
import { LabFigures } from '../../ui/lab-figures';
import { Said } from '../../ui/said';

interface Found {
  readonly id: string;
  readonly note: string;
  readonly map: MeasuredArea['map'];
  readonly drift: MeasuredArea['drift'];
  readonly under: LabUnder;
  readonly taken: Taken;
  readonly said: string;
  readonly isYellow: boolean;
  readonly shade: ShadeOf;
  readonly kept: boolean;
}

const LEAST_DRAG_PX = 6;
/** A block of the map that lies this far from the mean is drawn in full ink. */
const MAP_FULL_DELTA_E00 = 4;
/** A camera’s clock knows no zone: it goes by where it is looked at. */
function sayMoment(at: Date): string {
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return `${formatDay(at.toISOString(), zone)}, ${formatClock(at.toISOString(), zone)}`;
}
const EDGES = ['x', 'y', 'width', 'height'] as const;
const EDGE_LABELS = {
  x: $localize`:an edge of a picture:Left`,
  y: $localize`Top`,
  width: $localize`Width`,
  height: $localize`Height`,
} as const;

/** A reading from a photograph: a grey card and the pieces are marked in it, and a worker says what they are. */
@Component({
  selector: 'vs-photo-reading',
  imports: [
    Said,
    LabFigures,
    Decimals,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    NumberField,
    RefusalNote,
    ShadeChoice,
    Swatch,
  ],
  providers: [PhotoDesk, PhotoMeasurer],
  templateUrl: './photo-reading.html',
  styleUrl: './photo-reading.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PhotoReading {
  /** What its template says by what holds. */
  protected readonly says = {
    cardNotMeasured: $localize`; nobody has measured it yet, so every error grows by what a printer misses.`,
    measuring: $localize`Measuring …`,
    measureThem: $localize`Measure them`,
    evenness: (id: string | number): string => $localize`How even ${id} is, block by block`,
  };

  private readonly api = inject(ApiClient);
  protected readonly desk = inject(PhotoDesk);
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
  protected readonly state = signal<ReadingState>('dry');
  private readonly card = liveQuery(['studio'], () => this.api.get('/api/patch-card'));
  protected readonly isCardMeasured = computed(() => (this.card.value() ?? null) !== null);
  /** Which of what was measured was kept, and of which piece each is. */
  private readonly kept = signal<readonly string[]>([]);
  private readonly shades = signal<ReadonlyMap<string, ShadeOf>>(new Map());
  protected readonly found = computed(() => this.desk.measured().map((m) => this.foundOf(m)));
  /** Where a drag began, and where it is now, in the picture's pixels. */
  private readonly drag = signal<{ readonly from: [number, number]; readonly to: [number, number] } | undefined>(
    undefined,
  );

  /** What is drawn over the picture: the printed card, what is marked, and what is being dragged. */
  protected readonly areas = computed(() => {
    const [photo, d] = [this.desk.open(), this.drag()];
    return [
      ...(photo?.card ?? []).map((rect, i) => ({ id: `patch ${i}`, name: '', rect })),
      ...(photo?.marked ?? []).map(({ id, rect }) => ({ id, name: this.desk.names().get(id) ?? '', rect })),
      ...(d ? [{ id: 'drag', name: '', rect: rectOf(d.from, d.to) }] : []),
    ];
  });

  constructor() {
    effect(() => this.desk.cardLabs.set(this.card.value()?.labs ?? null));
    effect(() => {
      this.desk.open();
      requestAnimationFrame(() => this.draw());
    });
  }

  protected async choose(event: Event): Promise<void> {
    const files = [...((event.target as HTMLInputElement).files ?? [])];
    if (files.length === 0) return;
    this.kept.set([]);
    this.shades.set(new Map());
    await this.desk.layOut(files);
  }

  /** Shows the picture no wider than the page; what is measured is the whole of it. */
  private draw(): void {
    const [canvas, preview] = [this.canvas()?.nativeElement, this.desk.open()?.preview];
    if (!canvas || !preview) return;
    canvas.width = preview.width;
    canvas.height = preview.height;
    canvas.getContext('2d')?.drawImage(preview, 0, 0);
  }

  protected readonly percent = (rect: Rect): Record<string, number> => {
    const { width, height } = this.desk.open() ?? { width: 1, height: 1 };
    return {
      left: (100 * rect.x) / width,
      top: (100 * rect.y) / height,
      width: (100 * rect.width) / width,
      height: (100 * rect.height) / height,
    };
  };

  protected point(event: PointerEvent, phase: 'down' | 'move' | 'up'): void {
    const [frame, photo] = [event.currentTarget as HTMLElement, this.desk.open()];
    if (!photo) return;
    const box = frame.getBoundingClientRect();
    const within = (share: number, length: number): number => Math.round(Math.min(1, Math.max(0, share)) * length);
    const at: [number, number] = [
      within((event.clientX - box.left) / box.width, photo.width),
      within((event.clientY - box.top) / box.height, photo.height),
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
    if (Math.min(rect.width, rect.height) >= LEAST_DRAG_PX) this.desk.mark(rect);
  }

  /** Without a pointer: a part in the middle, to be moved by its figures. */
  protected markMiddle(): void {
    const { width, height } = this.desk.open() ?? { width: 0, height: 0 };
    this.desk.mark({
      x: Math.round(width * 0.4),
      y: Math.round(height * 0.4),
      width: Math.round(width * 0.2),
      height: Math.round(height * 0.2),
    });
  }

  private foundOf({ area, photo }: MeasuredPiece): Found {
    // A master is conditions too, and has a colour of its own.
    const { illuminant, observer } = this.conditions();
    const conditions = { illuminant, observer };
    const { lab, within80 } = underConditions(area, conditions);
    const taken = takenBy('photo', { within80, evenness: area.evenness });
    const hue = hueDegrees(lab);
    return {
      id: area.name,
      note: [photo.name, photo.takenAt ? $localize`taken ${sayMoment(photo.takenAt)}` : '']
        .filter((w) => w !== '')
        .join(', '),
      map: area.map,
      drift: area.drift,
      under: { ...lab, ...conditions },
      taken,
      said: sayTaken(taken),
      isYellow: hue > 75 && hue < 110 && Math.hypot(lab.a, lab.b) > 40,
      shade: this.shades().get(area.name) ?? WHOLE,
      kept: this.kept().includes(area.name),
    };
  }

  protected setShade(id: string, shade: ShadeOf): void {
    this.shades.update((all) => new Map(all).set(id, shade));
  }

  protected keep({ id, shade, under, taken, note }: Found): void {
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
      note,
      replacesId: null,
    };
    this.keeping.run(this.api.post('/api/lots/{id}/readings', body, this.lot().summary.id), () => {
      this.kept.update((all) => [...all, id]);
      this.changed.emit();
    });
  }

  /** How dark a block of the map is drawn: ink where it lies furthest. */
  protected readonly inkOf = (deltaE00: number): number => Math.min(1, deltaE00 / MAP_FULL_DELTA_E00);
}

const rectOf = ([x0, y0]: readonly [number, number], [x1, y1]: readonly [number, number]): Rect => ({
  x: Math.min(x0, x1),
  y: Math.min(y0, y1),
  width: Math.abs(x1 - x0),
  height: Math.abs(y1 - y0),
});
