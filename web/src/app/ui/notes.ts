import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail, Note, NoteSubject } from '@vestigia/contract';
import type { ShadeOf } from '@vestigia/core';
import { WHOLE, sayAlone } from '@vestigia/core';
import { ApiClient } from '../api/api-client';
import { liveQuery } from '../api/live-query';
import { newId } from '../api/new-id';
import { pageAction } from '../api/page-action';
import { RefusalNote } from './refusal';
import { ShadeChoice } from './shade-choice';
import { When } from './when';
import { Kept } from './kept';

const MARK_LABELS = { next: $localize`for next time`, recipe: $localize`for the recipe` } as const;

/** Notes on whatever the page is about: written at any time, found by search, corrected beside what they were. */
@Component({
  selector: 'vs-notes',
  imports: [Kept, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, ShadeChoice, When],
  template: `<h2 i18n>Notes</h2>
    @if (notes.value(); as all) {
      @for (n of all; track n.id) {
        <p [vsKept]="n.id">
          {{ n.of ? sayOf(n.of) + ': ' : '' }}{{ n.text }}
          <span class="soft small">
            {{ n.mark ? markLabel[n.mark] + ', ' : '' }}{{ n.by.name }}, {{ n.at | when: 'moment' }}
          </span>
          <button i18n class="plain small" type="button" (click)="correct(n)">Correct</button>
        </p>
      }
    }
    <form (ngSubmit)="keep()">
      <div class="fields">
        <mat-form-field class="wide"
          ><mat-label>{{ correcting() ? says.standsOrTakesBack : says.aNote }}</mat-label
          ><textarea matInput rows="2" name="note" [(ngModel)]="text"></textarea>
        </mat-form-field>
        @if (lot(); as l) {
          @if (of(); as shade) {
            <vs-shade-choice [lot]="l" [shade]="shade" (shadeChange)="of.set($event)" />
          }
        }
        @if (marks().length > 0) {
          <mat-form-field
            ><mat-label i18n>Seen again</mat-label
            ><select matNativeControl name="mark" [(ngModel)]="mark">
              <option i18n [ngValue]="null">here, and by search</option>
              @for (m of marks(); track m) {
                <option [ngValue]="m">{{ markLabel[m] }}</option>
              }
            </select></mat-form-field
          >
        }
      </div>
      <vs-refusal [problem]="action.problem()" />
      <button i18n class="act" type="submit" [disabled]="action.busy()">Keep the note</button>
      @if (lot()) {
        <button i18n class="act" type="button" [attr.aria-pressed]="of() !== null" (click)="ofOne()">
          On one piece or part
        </button>
      }
      @if (correcting()) {
        <button i18n class="plain" type="button" (click)="clear()">Cancel</button>
      }
    </form>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Notes {
  /** What its template says by what holds. */
  protected readonly says = {
    standsOrTakesBack: $localize`What should stand; empty takes it back`,
    aNote: $localize`A note`,
  };

  private readonly api = inject(ApiClient);
  readonly subject = input.required<NoteSubject>();
  readonly subjectId = input.required<string>();
  /** Where else a note may be seen again. */
  readonly marks = input<readonly NonNullable<Note['mark']>[]>([]);
  /** The lot it is about: a note may be on one of its pieces, zones, parts or dips. */
  readonly lot = input<LotDetail>();
  protected readonly of = signal<ShadeOf | null>(null);
  protected readonly sayOf = (of: ShadeOf): string => {
    const plan = this.lot()?.plan;
    return (plan && sayAlone(plan, of)) ?? '';
  };
  protected readonly markLabel = MARK_LABELS;
  protected readonly action = pageAction();
  protected readonly text = signal('');
  protected readonly mark = signal<Note['mark']>(null);
  protected readonly correcting = signal<Note | undefined>(undefined);
  protected readonly notes = liveQuery(
    ['notes'],
    () => this.api.get('/api/notes', { query: { subject: this.subject(), id: this.subjectId() } }),
    () => `${this.subject()} ${this.subjectId()}`,
  );
  private noteId = newId();

  protected correct(note: Note): void {
    this.correcting.set(note);
    this.text.set(note.text);
    this.mark.set(note.mark);
    this.of.set(note.of);
  }

  protected ofOne(): void {
    this.of.update((of) => (of ? null : WHOLE));
  }

  protected clear(): void {
    this.correcting.set(undefined);
    this.text.set('');
    this.mark.set(null);
    this.of.set(null);
  }

  protected keep(): void {
    const before = this.correcting();
    const [subject, subjectId] = before ? [before.subject, before.subjectId] : [this.subject(), this.subjectId()];
    const body = { id: this.noteId, subject, subjectId, text: this.text(), mark: this.mark(), of: this.of() };
    this.action.run(this.api.post('/api/notes', { ...body, replacesId: before?.id ?? null }), () => {
      this.noteId = newId();
      this.clear();
      this.notes.reload();
    });
  }
}
