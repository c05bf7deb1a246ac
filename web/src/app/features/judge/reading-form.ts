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
  viewChild,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail, ReadingView } from '@vestigia/contract';
import type { ColourConditions, ReadingState, ShadeOf } from '@vestigia/core';
import {
  READING_STATES,
  currentEntries,
  isSettled,
  looksBackedDark,
  placeShade,
  sameConditions,
  shadeKey,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { ColourEntry } from '../../ui/colour-entry';
import { RefusalNote } from '../../ui/refusal';
import { ShadeChoice } from '../../ui/shade-choice';
import { DraftOf } from '../../ui/draft';
import { Decimals } from '../../ui/decimals';
import { Said } from '../../ui/said';

/** A new reading of a shade of a lot, or one that stands in place of another. */
@Component({
  selector: 'vs-reading-form',
  imports: [
    Said,
    Decimals,
    DraftOf,
    ColourEntry,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    RefusalNote,
    ShadeChoice,
  ],
  template: `<form (ngSubmit)="read()">
    <vs-draft [of]="'reading of ' + lot().summary.id" [action]="reading" />
    <h3>{{ replaces() ? says.whatShouldStandInstead : says.aNewReading }}</h3>
    <div class="fields lab">
      <vs-shade-choice [lot]="lot()" [(shade)]="shade" />
      <mat-form-field
        ><mat-label i18n>The piece is</mat-label
        ><select matNativeControl name="state" [(ngModel)]="state">
          @for (s of states; track s) {
            <option [ngValue]="s">{{ s | said }}</option>
          }
        </select></mat-form-field
      >
    </div>
    <vs-colour-entry
      [under]="under()"
      [why]="lot().summary.master ? says.asTheMasterWas : ''"
      [start]="lot().summary.master ?? lot().summary.undyed"
    />
    <div class="fields">
      <mat-form-field class="wide"
        ><mat-label i18n>Note on the reading</mat-label><input matInput name="readingNote" [(ngModel)]="note"
      /></mat-form-field>
    </div>
    @if (backed(); as darker) {
      <p i18n class="wet" role="status">
        Darker by L* {{ darker | decimals: 1 }} than it was read before, in the same hue: did something dark show
        through? Fold it until nothing does and read it again, on white; or keep it as it is.
      </p>
    }
    <vs-refusal [problem]="reading.problem()" />
    <button i18n class="act" type="submit" [disabled]="reading.busy()">Keep the reading</button>
    @if (replaces()) {
      <button i18n class="plain" type="button" (click)="replaces.set(undefined)">Cancel the correction</button>
    }
  </form>`,
  styleUrl: './judge.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReadingForm {
  /** What its template says by what holds. */
  protected readonly says = {
    whatShouldStandInstead: $localize`What should stand instead`,
    aNewReading: $localize`A new reading`,
    asTheMasterWas: $localize`, as the master was`,
  };

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
  private readonly entry = viewChild.required(ColourEntry);
  protected readonly states = READING_STATES;
  protected readonly state = linkedSignal((): ReadingState => this.replaces()?.state ?? 'dry');
  protected readonly note = signal('');
  protected readonly reading = pageAction();
  /** How much darker than the same shade was read before, where a dark table explains it. */
  protected readonly backed = computed(() => {
    const { plan, readings } = this.lot();
    const now = this.entry().value().lab;
    if (!isSettled(this.state()) || !Number.isFinite(now.L)) return undefined;
    const key = shadeKey(placeShade(plan, this.shade()));
    const before = currentEntries(readings)
      .filter((r) => r.batch === this.shade().batch && shadeKey(placeShade(plan, r)) === key)
      .filter((r) => r.id !== this.replaces()?.id && r.state === this.state() && sameConditions(r, this.under()))
      .at(-1);
    return before && looksBackedDark(before.lab, now);
  });
  private readingId = newId();

  protected read(): void {
    const { illuminant, observer } = this.under();
    const body = {
      id: this.readingId,
      ...this.shade(),
      state: this.state(),
      illuminant,
      observer,
      ...this.entry().value(),
      note: this.note(),
      replacesId: this.replaces()?.id ?? null,
    };
    this.reading.run(this.api.post('/api/lots/{id}/readings', body, this.lot().summary.id), ({ id }) => {
      this.readingId = newId();
      this.replaces.set(undefined);
      this.note.set('');
      this.entry().clear();
      this.changed.emit(id);
    });
  }
}
