import { ChangeDetectionStrategy, Component, computed, effect, inject, input, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import { HAZARD_WORDS, formatAmount, readAmount } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { Margin } from '../../shell/margin';
import { Amount } from '../../ui/amount';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';

const KIND_WORDS = { receive: 'came in', use: 'used', count: 'counted', reverse: 'reversed' } as const;

/** One jar: what is in it, how it got there, where it went. */
@Component({
  selector: 'vs-jar',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, Amount, RefusalNote, When],
  template: `
    <vs-refusal [problem]="jar.problem()" />
    @if (jar.value(); as j) {
      <div class="head"><div><h1>{{ j.row.tag }} · {{ j.row.material }}</h1><p class="soft">{{ j.row.kind }}, {{ j.row.source || 'source not noted' }}, since {{ j.row.receivedOn | when }}</p></div></div>
      <dl class="sums">
        <div><dt>On hand</dt><dd>{{ j.row.onHand | amount: j.row.measure }}</dd></div>
        <div><dt>Promised</dt><dd>{{ j.row.promised | amount: j.row.measure }}</dd></div>
        <div><dt>Free</dt><dd>{{ j.row.free | amount: j.row.measure }}</dd></div>
      </dl>
      @if (j.row.free < 0) { <p class="refusal">Promised more than there is. Book in a delivery before those lots are weighed out.</p> }

      <h2>Count it</h2>
      <form (ngSubmit)="count()">
        <div class="fields">
          <mat-form-field><mat-label>What the balance shows</mat-label><input matInput name="counted" [(ngModel)]="counted" autocomplete="off" placeholder="e.g. 1.24 kg, or 0 g"></mat-form-field>
          <mat-form-field><mat-label>Likely reason, if it differs</mat-label><input matInput name="reason" [(ngModel)]="reason"></mat-form-field>
        </div>
        @if (difference(); as words) { <p>{{ words }}</p> }
        <vs-refusal [problem]="counting.problem()" />
        <button class="act main" type="submit" [disabled]="counting.busy() || counted().trim() === ''">Book the count</button>
        @if (counting.problem()?.code === 'changedMeanwhile') { <button class="plain" type="button" (click)="recount()">Weigh it again from here</button> }
        @if (booked()) { <span role="status"> {{ booked() }}</span> }
      </form>

      <h2>Ledger</h2>
      <div class="scroller"><table class="ledger">
        <thead><tr><th>When</th><th>What</th><th class="number">Amount</th><th class="number">Balance</th><th>By</th><th>Note</th><th></th></tr></thead>
        <tbody>
          @for (line of newestFirst(); track line.id) {
            <tr [class.struck]="line.reversed">
              <td class="small">{{ line.at | when: 'moment' }}</td>
              <td>{{ kinds[line.kind] }}@if (line.lot; as lot) { in <a [routerLink]="['/lots', lot.id]">{{ lot.tag }}</a> }</td>
              <td class="number">{{ line.amount | amount: j.row.measure : true }}</td><td class="number">{{ line.balance | amount: j.row.measure }}</td>
              <td>{{ line.by.name }}</td><td class="small">{{ line.note }}</td>
              <td>@if (!line.reversed && !line.lot && line.kind !== 'reverse') { <button class="plain small" type="button" (click)="reversing.set(line.id)">Reverse</button> }</td>
            </tr>
            @if (reversing() === line.id) {
              <tr><td colspan="7"><form (ngSubmit)="reverse(line.id)" class="fields"><mat-form-field><mat-label>Why is it reversed?</mat-label><input matInput name="why" [(ngModel)]="why"></mat-form-field><div><button class="act" type="submit">Reverse it</button> <button class="plain" type="button" (click)="reversing.set('')">Leave it</button></div></form><vs-refusal [problem]="reversal.problem()" /></td></tr>
            }
          }
        </tbody>
      </table></div>

      <h2>Where it went</h2>
      @if (j.wentInto.length === 0) { <p class="soft">Into no lot yet.</p> } @else {
        <table class="ledger"><tbody>@for (w of j.wentInto; track w.lot.id) { <tr><td><a [routerLink]="['/lots', w.lot.id]"><strong>{{ w.lot.tag }}</strong></a></td><td>{{ w.lot.colourway }}</td><td class="number">{{ w.amount | amount: j.row.measure }}</td></tr> }</tbody></table>
      }
      @if (j.promises.length > 0) {
        <h2>Promised to</h2>
        <table class="ledger"><tbody>@for (p of j.promises; track p.lot.id) { <tr><td><a [routerLink]="['/lots', p.lot.id]"><strong>{{ p.lot.tag }}</strong></a></td><td class="number">{{ p.amount | amount: j.row.measure }}</td></tr> }</tbody></table>
      }

      <h2>The label</h2>
      <form (ngSubmit)="save()">
        <div class="fields">
          <mat-form-field><mat-label>Place on the shelf</mat-label><input matInput name="place" [(ngModel)]="place"></mat-form-field>
          <mat-form-field><mat-label>Best before</mat-label><input matInput type="date" name="bestBefore" [(ngModel)]="bestBefore"></mat-form-field>
          <mat-form-field class="wide"><mat-label>Note</mat-label><textarea matInput name="note" rows="2" [(ngModel)]="note"></textarea></mat-form-field>
        </div>
        <vs-refusal [problem]="saving.problem()" />
        @if (theirs(); as t) { <p>Now standing: place “{{ t.place }}”, best before {{ (t.bestBefore | when) || 'none' }}, note “{{ t.note }}”. <button class="plain" type="button" (click)="jar.reload(); saving.clear()">Take theirs</button></p> }
        <button class="act" type="submit" [disabled]="saving.busy()">Keep the label</button>
      </form>
    }`,
  styles: `.sums { display: flex; flex-wrap: wrap; gap: 0.5rem 2.5rem; margin: 0; } .sums dt { color: var(--ink-soft); } .sums dd { margin: 0; font-size: 1.7rem; font-weight: 700; }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JarPage {
  private readonly api = inject(ApiClient);
  private readonly margin = inject(Margin);
  readonly id = input.required<string>();
  protected readonly kinds = KIND_WORDS;
  protected readonly jar = live(['stores'], () => this.api.get('/api/stock-lots/{id}', { id: this.id() }), () => this.id());
  protected readonly newestFirst = computed(() => [...(this.jar.value()?.lines ?? [])].reverse());

  protected readonly counting = doing();
  protected readonly counted = signal('');
  protected readonly reason = signal('');
  protected readonly booked = signal('');
  /** On hand when the counter began, kept while the shelf moves under it. */
  private readonly seen = signal<number | undefined>(undefined);
  private countId = newId();
  protected readonly difference = computed(() => {
    const j = this.jar.value();
    if (!j || this.counted().trim() === '') return '';
    const reading = readAmount(this.counted(), j.row.measure, { allowNothing: true });
    if (!reading.ok) return reading.sentence;
    const off = reading.amount - j.row.onHand;
    return off === 0 ? 'As the screen says.' : `${formatAmount(Math.abs(off), j.row.measure)} ${off > 0 ? 'more' : 'less'} than the screen says; the difference is booked as a movement.`;
  });

  protected readonly reversal = doing();
  protected readonly reversing = signal('');
  protected readonly why = signal('');

  protected readonly saving = doing();
  protected readonly place = linkedSignal(() => this.jar.value()?.row.place ?? '');
  protected readonly bestBefore = linkedSignal(() => this.jar.value()?.row.bestBefore ?? '');
  protected readonly note = linkedSignal(() => this.jar.value()?.note ?? '');
  private readonly version = linkedSignal(() => this.jar.value()?.version ?? 1);
  protected readonly theirs = computed(() => (this.saving.problem()?.code === 'stale' ? (this.saving.problem()?.theirs as { place: string; note: string; bestBefore: string | null }) : undefined));

  constructor() {
    effect(() => {
      const hazards = this.jar.value()?.row.hazards ?? [];
      this.margin.notes.set(hazards.length === 0 ? [] : [{ title: 'Handle with care', lines: [...hazards.map((h) => `${HAZARD_WORDS[h]}.`), 'The supplier’s safety data sheet says what protection it needs.'] }]);
    });
  }

  protected count(): void {
    const j = this.jar.value();
    if (!j) return;
    this.booked.set('');
    this.counting.run(this.api.post('/api/stock-lots/{id}/counts', { id: this.countId, written: this.counted(), seenOnHand: this.seen() ?? j.row.onHand, note: this.reason() }, this.id()), ({ difference }) => {
      this.booked.set(difference === 0 ? 'The shelf agrees with the screen.' : `Booked: ${formatAmount(Math.abs(difference), j.row.measure)} ${difference > 0 ? 'more' : 'less'}.`);
      this.recount();
      this.counted.set('');
      this.reason.set('');
    });
  }

  protected recount(): void {
    this.seen.set(undefined);
    this.countId = newId();
    this.counting.clear();
    this.jar.reload();
  }

  protected reverse(movementId: string): void {
    this.reversal.run(this.api.post('/api/movements/{id}/reversal', { id: newId(), note: this.why() }, movementId), () => {
      this.reversing.set('');
      this.why.set('');
      this.jar.reload();
    });
  }

  protected save(): void {
    this.saving.run(this.api.put('/api/stock-lots/{id}', { version: this.version(), place: this.place(), note: this.note(), bestBefore: this.bestBefore() || null }, this.id()), () => this.jar.reload());
  }
}
