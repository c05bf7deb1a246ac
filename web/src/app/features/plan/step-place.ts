import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { explainClock, readClock } from '@vestigia/core';
import { offered } from '../../services/offered';
import { StudioCalendar } from '../../services/studio-calendar';
import { DayField } from '../../ui/day-field';
import { DayPicker } from '../../ui/day-picker';
import { May } from '../../ui/may';
import { When } from '../../ui/when';

/** One step of the plan: when, by whom and with what; another time for it, and why it can't be there. */
@Component({
  selector: 'vs-step-place',
  imports: [DayField, DayPicker, FormsModule, MatFormFieldModule, MatInputModule, May, When],
  template: `<section [attr.aria-label]="name()">
    <h2>{{ name() }}</h2>
    <p>
      <span i18n>{{ iso(fromMs()) | when: 'moment' }} to {{ iso(toMs()) | when: 'moment' }}</span>
      @if (people().length > 0) {
        <span> · {{ people().join(', ') }}</span>
      }
      @if (things().length > 0) {
        <span> · {{ things().join(', ') }}</span>
      }
    </p>
    @if (learntOf(); as lots) {
      <p i18n class="small soft">Its time is what it took in {{ lots }} earlier lots, not what its recipe says.</p>
    }
    @if (isFact()) {
      <p i18n>It is begun: it stays where it is, and what follows waits for it.</p>
    } @else {
      <form *vsMay="'dyer'" class="fields" (ngSubmit)="want()" (input)="write()">
        <mat-form-field
          ><mat-label i18n>Begins on</mat-label
          ><input matInput vsDay #onDay="vsDay" name="onDay" [(ngModel)]="day" /><vs-day-picker
            matIconSuffix
            [for]="onDay"
        /></mat-form-field>
        <mat-form-field
          ><mat-label i18n>At</mat-label><input matInput name="at" autocomplete="off" [(ngModel)]="clock"
        /></mat-form-field>
        <div>
          @if (wrong()) {
            <p class="refusal small" role="status">{{ wrong() }}</p>
          }
          <button i18n class="act" type="submit" [disabled]="day() === '' || wrong() !== ''">Try it then</button>
        </div>
        <div>
          <label
            ><input
              type="checkbox"
              name="lock"
              [checked]="isLocked()"
              (change)="locked.emit($any($event.target).checked)"
            />
            <span i18n>It stays there, whatever else moves</span></label
          >
        </div>
      </form>
    }
    @if (reasons().length > 0) {
      <p i18n class="refusal" role="status">It can’t simply stand there, so it stands as near as it can:</p>
      <ul>
        @for (r of reasons(); track r) {
          <li>{{ r }}</li>
        }
      </ul>
    }
    <button i18n class="plain" type="button" (click)="closed.emit()">Close</button>
  </section>`,
  styles: `
    section {
      border: 1px solid var(--line-strong);
      padding: 0 1rem 0.5rem;
      margin: 0.5rem 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StepPlace {
  private readonly calendar = inject(StudioCalendar);
  readonly name = input.required<string>();
  readonly fromMs = input.required<number>();
  readonly toMs = input.required<number>();
  readonly people = input.required<readonly string[]>();
  readonly things = input.required<readonly string[]>();
  readonly isFact = input.required<boolean>();
  readonly isLocked = input.required<boolean>();
  /** Of so many earlier lots its time was learnt. */
  readonly learntOf = input.required<number | null>();
  readonly reasons = input.required<readonly string[]>();
  /** When it is to begin, epoch ms. */
  readonly wanted = output<number>();
  readonly locked = output<boolean>();
  readonly closed = output();
  /** The step whose moment is being written: better plans that are found meanwhile leave it be. */
  private readonly writing = signal<string | undefined>(undefined);
  private readonly standsMs = linkedSignal<{ name: string; ms: number; isKept: boolean }, number>({
    source: () => ({ name: this.name(), ms: this.fromMs(), isKept: this.writing() === this.name() }),
    computation: ({ name, ms, isKept }, before) => (isKept && before?.source.name === name ? before.value : ms),
  });
  protected readonly day = offered(() => this.calendar.dayOf(this.standsMs()));
  protected readonly clock = offered(() => this.calendar.formatClock(this.iso(this.standsMs())));

  protected write(): void {
    this.writing.set(this.name());
  }

  protected iso(ms: number): string {
    return new Date(ms).toISOString();
  }

  /** What is wrong with the time of day. */
  protected readonly wrong = computed(() => (readClock(this.clock()) === undefined ? explainClock(this.clock()) : ''));

  protected want(): void {
    const clock = readClock(this.clock());
    if (this.day() === '' || clock === undefined) return;
    this.writing.set(undefined);
    this.wanted.emit(this.calendar.instantOf(this.day(), clock));
  }
}
