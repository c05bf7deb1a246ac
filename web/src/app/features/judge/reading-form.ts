import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  model,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail, ReadingView } from '@vestigia/contract';
import type { ColourConditions, Lab, ReadingState, ShadeOf, Taken } from '@vestigia/core';
import { LADDER_WITHIN80, READING_STATES, foldSpots, sayEvenness, takenBy, withoutOffset } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { NumberField } from '../../ui/number-field';
import { RefusalNote } from '../../ui/refusal';
import { ShadeChoice } from '../../ui/shade-choice';
import { EyeLadder } from './eye-ladder';
import type { FromFile } from './reader-file';
import { ReaderFile } from './reader-file';

const round = (value: number): number => Math.round(value * 100) / 100;
const rounded = ({ L, a, b }: Lab): Lab => ({ L: round(L), a: round(a), b: round(b) });
const same = (x: Lab, y: Lab): boolean => x.L === y.L && x.a === y.a && x.b === y.b;

/** A new reading of a shade: typed spot by spot, out of a reader's file, or bracketed by eye on a ladder. */
@Component({
  selector: 'vs-reading-form',
  imports: [
    EyeLadder,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    NumberField,
    ReaderFile,
    RefusalNote,
    ShadeChoice,
  ],
  templateUrl: './reading-form.html',
  styleUrl: './judge.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReadingForm {
  private readonly api = inject(ApiClient);
  readonly lot = input.required<LotDetail>();
  /** Light and observer of the reading. */
  readonly under = input.required<ColourConditions>();
  /** What it is of. */
  readonly shade = model.required<ShadeOf>();
  /** The reading that this one stands in place of. */
  readonly replaces = model<ReadingView>();
  /** The id of what was kept. */
  readonly changed = output<string>();
  protected readonly states = READING_STATES;
  protected readonly state = linkedSignal((): ReadingState => this.replaces()?.state ?? 'dry');
  protected readonly L = signal<number | null>(null);
  protected readonly a = signal<number | null>(null);
  protected readonly b = signal<number | null>(null);
  protected readonly note = signal('');
  /** Spots put by; what stands in the fields is one more. */
  protected readonly spots = signal<readonly Lab[]>([]);
  /** Which reader it was, as the studio calls it. */
  protected readonly reader = signal('');
  protected readonly isPutRight = signal(false);
  private readonly knownReaders = liveQuery(['lots'], () => this.api.get('/api/readers'));
  protected readonly readers = computed(() => (this.knownReaders.value() ?? []).map((r) => r.name));
  protected readonly offset = computed(
    () => (this.knownReaders.value() ?? []).find((r) => r.name === this.reader().trim())?.offset ?? null,
  );
  /** What the new reading came from; typed over, it is typed. */
  private readonly from = signal<(FromFile & { readonly within80?: number }) | undefined>(undefined);
  protected readonly reading = pageAction();
  private readingId = newId();

  private readonly typed = computed((): Lab | undefined => {
    const [L, a, b] = [this.L(), this.a(), this.b()];
    return L === null || a === null || b === null ? undefined : { L, a, b };
  });
  private readonly all = computed(() => {
    const typed = this.typed();
    return typed ? [...this.spots(), typed] : this.spots();
  });
  protected readonly folded = computed(() => {
    const all = this.all();
    if (all.length < 2) return undefined;
    const { lab, evenness, spreadDeltaE00 } = foldSpots(all);
    return { lab: rounded(lab), count: all.length, spreadDeltaE00, evenness: evenness ? sayEvenness(evenness) : '' };
  });

  protected nextSpot(): void {
    const typed = this.typed();
    if (!typed) return;
    this.spots.update((spots) => [...spots, typed]);
    this.empty();
  }

  protected leaveOut(index: number): void {
    this.spots.update((spots) => spots.filter((_, i) => i !== index));
  }

  protected takeFromFile(from: FromFile): void {
    this.from.set(from);
    this.put(from.lab);
  }

  protected takeFromLadder(lab: Lab): void {
    const own = rounded(lab);
    this.from.set({ lab: own, way: 'ladder', spectrum: null, within80: LADDER_WITHIN80 });
    this.put(own);
  }

  private put(lab: Lab): void {
    this.L.set(lab.L);
    this.a.set(lab.a);
    this.b.set(lab.b);
  }

  private empty(): void {
    for (const field of [this.L, this.a, this.b]) field.set(null);
  }

  private taken(lab: Lab): Taken {
    const [all, from, reader] = [this.all(), this.from(), this.reader().trim()];
    const isAsGiven = from !== undefined && all.length < 2 && same(from.lab, lab);
    const offset = this.isPutRight() ? (this.offset()?.lab ?? null) : null;
    const way = isAsGiven ? from.way : reader === '' ? 'typed' : 'reader';
    return takenBy(way, {
      within80: isAsGiven ? (from.within80 ?? null) : null,
      spectrum: isAsGiven ? from.spectrum : null,
      evenness: all.length < 2 ? null : foldSpots(all).evenness,
      spots: all.length < 2 ? [] : all,
      reader,
      offset,
    });
  }

  protected read(): void {
    const { illuminant, observer } = this.under();
    const all = this.all();
    const lab = all.length === 0 ? { L: NaN, a: NaN, b: NaN } : rounded(foldSpots(all).lab);
    const taken = this.taken(lab);
    const right = taken.offset ? rounded(withoutOffset(lab, { lab: taken.offset, leftDeltaE00: 0 })) : lab;
    const body = {
      id: this.readingId,
      ...this.shade(),
      state: this.state(),
      lab: right,
      illuminant,
      observer,
      taken,
      note: this.note(),
      replacesId: this.replaces()?.id ?? null,
    };
    this.reading.run(this.api.post('/api/lots/{id}/readings', body, this.lot().summary.id), ({ id }) => {
      this.readingId = newId();
      this.replaces.set(undefined);
      this.spots.set([]);
      this.note.set('');
      this.empty();
      this.from.set(undefined);
      this.changed.emit(id);
    });
  }
}
