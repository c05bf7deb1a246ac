import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LabUnder } from '@vestigia/contract';
import type { ColourConditions, Lab, Taken } from '@vestigia/core';
import { foldSpots, sayEvenness, takenBy, withoutOffset } from '@vestigia/core';
import { ApiClient } from '../api/api-client';
import { liveQuery } from '../api/live-query';
import type { LadderFound } from './eye-ladder';
import { EyeLadder } from './eye-ladder';
import { NumberField } from './number-field';
import type { FromFile } from './reader-file';
import { ReaderFile } from './reader-file';
import { Decimals } from './decimals';
import { LabFigures } from './lab-figures';
import { Said } from './said';

const round = (value: number): number => Math.round(value * 100) / 100;
const rounded = ({ L, a, b }: Lab): Lab => ({ L: round(L), a: round(a), b: round(b) });
const same = (x: Lab, y: Lab): boolean => x.L === y.L && x.a === y.a && x.b === y.b;

/** A colour as it was read, and how it was taken. */
export interface EnteredColour {
  readonly lab: Lab;
  readonly taken: Taken;
}

/**
 * One way to take a reading, whatever it is of: typed spot by spot, with which reader, out of a reader’s file, or
 * bracketed by eye on a ladder.
 */
@Component({
  selector: 'vs-colour-entry',
  imports: [
    Said,
    LabFigures,
    Decimals,
    EyeLadder,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    NumberField,
    ReaderFile,
  ],
  template: `<div class="fields lab">
      <mat-form-field
        ><mat-label>L*</mat-label><input matInput vsNumber name="L" [(ngModel)]="L" [ngModelOptions]="alone"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>a*</mat-label><input matInput vsNumber name="a" [(ngModel)]="a" [ngModelOptions]="alone"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>b*</mat-label><input matInput vsNumber name="b" [(ngModel)]="b" [ngModelOptions]="alone"
      /></mat-form-field>
    </div>
    <p i18n class="small soft">Under {{ under().illuminant }}, {{ under().observer }}° observer{{ why() }}.</p>
    @for (s of spots(); track $index) {
      <p i18n class="small">
        Spot {{ $index + 1 }}: {{ s | lab: 2 }}
        <button class="plain small" type="button" (click)="leaveOut($index)">Leave it out</button>
      </p>
    }
    @if (folded(); as f) {
      <p i18n role="status">
        The mean of {{ f.count }} spots: {{ f.lab | lab: 2 }}, {{ f.evenness | said }}, ΔE00
        {{ f.spreadDeltaE00 | decimals: 2 }} about it.
      </p>
    }
    <details>
      <summary i18n>Another spot, or which reader</summary>
      <button i18n class="act" type="button" (click)="nextSpot()">Put this spot by, and read another</button>
      <div class="fields">
        <mat-form-field
          ><mat-label i18n>Which reader</mat-label
          ><input
            matInput
            name="reader"
            list="known-readers"
            autocomplete="off"
            [(ngModel)]="reader"
            [ngModelOptions]="alone"
        /></mat-form-field>
        <datalist id="known-readers">
          @for (r of readers(); track r) {
            <option [value]="r"></option>
          }
        </datalist>
      </div>
      @if (offset(); as o) {
        <label class="tick"
          ><input type="checkbox" name="putRight" [(ngModel)]="isPutRight" [ngModelOptions]="alone" />
          <ng-container i18n>Put right for how it reads beside the first ({{ o.lab | lab: 2 }})</ng-container></label
        >
      }
    </details>
    <details>
      <summary i18n>Out of a reader’s file</summary>
      <vs-reader-file [conditions]="under()" (taken)="takeFromFile($event)" />
    </details>
    <details>
      <summary i18n>By eye, on a ladder</summary>
      <vs-eye-ladder [start]="start()" (taken)="takeFromLadder($event)" />
    </details>`,
  styles: `
    .lab {
      grid-template-columns: repeat(auto-fit, minmax(min(7rem, 100%), 1fr));
    }
    summary {
      min-height: 44px;
      font-weight: 600;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ColourEntry {
  private readonly api = inject(ApiClient);
  /** Light and observer of the reading, and why those. */
  readonly under = input.required<ColourConditions>();
  readonly why = input('');
  /** Where a ladder begins. */
  readonly start = input.required<LabUnder>();
  /** A colour it begins with. */
  readonly given = input<Lab | null>(null);
  /** Its fields belong to no form: whoever asks takes `value`. */
  protected readonly alone = { standalone: true };
  protected readonly L = linkedSignal(() => this.given()?.L ?? null);
  protected readonly a = linkedSignal(() => this.given()?.a ?? null);
  protected readonly b = linkedSignal(() => this.given()?.b ?? null);
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
  /** What the colour came from; typed over, it is typed. */
  private readonly from = signal<(FromFile & { readonly within80?: number }) | undefined>(undefined);

  private readonly typed = computed((): Lab | undefined => {
    const [L, a, b] = [this.L(), this.a(), this.b()];
    return L === null || a === null || b === null ? undefined : { L, a, b };
  });
  /** Some of the three numbers stand, not all: what is entered is no colour yet. */
  readonly isBegun = computed(() => {
    const fields = [this.L(), this.a(), this.b()];
    return fields.some((v) => v !== null) && fields.includes(null);
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

  /** Nothing is entered. */
  readonly isEmpty = computed(() => this.all().length === 0 && !this.isBegun());

  /** What is entered; numbers that are missing are none, and the server says so. */
  readonly value = computed((): EnteredColour => {
    const all = this.all();
    const lab = all.length === 0 ? { L: NaN, a: NaN, b: NaN } : rounded(foldSpots(all).lab);
    const [from, reader] = [this.from(), this.reader().trim()];
    const isAsGiven = from !== undefined && all.length < 2 && same(from.lab, lab);
    const offset = this.isPutRight() ? (this.offset()?.lab ?? null) : null;
    const taken = takenBy(isAsGiven ? from.way : reader === '' ? 'typed' : 'reader', {
      within80: isAsGiven ? (from.within80 ?? null) : null,
      spectrum: isAsGiven ? from.spectrum : null,
      evenness: all.length < 2 ? null : foldSpots(all).evenness,
      spots: all.length < 2 ? [] : all,
      reader,
      offset,
    });
    return { lab: offset ? rounded(withoutOffset(lab, { lab: offset, leftDeltaE00: 0 })) : lab, taken };
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

  protected takeFromLadder({ lab, within80 }: LadderFound): void {
    const own = rounded(lab);
    this.from.set({ lab: own, way: 'ladder', spectrum: null, within80 });
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

  /** Once it is kept: the reader stays, the colour goes. */
  clear(): void {
    this.spots.set([]);
    this.from.set(undefined);
    this.empty();
  }
}
