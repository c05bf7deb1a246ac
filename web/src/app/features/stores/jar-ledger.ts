import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { StockLedgerLine, StockLot } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { Amount } from '../../ui/amount';
import { LEDGER_WORDS, LEDGER_WORDS_OF_LOT } from '../../ui/ledger-words';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';

/** Every line that moved or bound one jar's stock, newest first; wrong ones are reversed here. */
@Component({
  selector: 'vs-jar-ledger',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, Amount, RefusalNote, When],
  template: ` <h2>Ledger</h2>
    <div class="scroller">
      <table class="ledger">
        <thead>
          <tr>
            <th>When</th>
            <th>What</th>
            <th class="number">Amount</th>
            <th class="number">Balance</th>
            <th>By</th>
            <th>Note</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          @for (line of newestFirst(); track line.id) {
            <tr [class.struck]="line.reversed">
              <td class="small">{{ line.at | when: 'moment' }}</td>
              <td class="what">
                {{ (line.lot ? lotWords[line.kind] : undefined) ?? words[line.kind] }}
                @if (line.lot; as lot) {
                  &#32;
                  @if (lot.id) {
                    <a [routerLink]="['/lots', lot.id]">{{ lot.tag }}</a>
                  } @else {
                    {{ lot.tag }}
                  }
                }
              </td>
              <td class="number" [class.soft]="binds(line)">{{ line.amount | amount: jar().row.measure : true }}</td>
              <td class="number">{{ line.balance | amount: jar().row.measure }}</td>
              <td>{{ line.by.name }}</td>
              <td class="small">{{ line.note }}</td>
              <td>
                @if (canReverse(line)) {
                  <button class="plain small" type="button" (click)="reversing.set(line.id)">Reverse</button>
                }
              </td>
            </tr>
            @if (reversing() === line.id) {
              <tr>
                <td colspan="7">
                  <form (ngSubmit)="reverse(line.id)" class="fields">
                    <mat-form-field
                      ><mat-label>Why is it reversed?</mat-label><input matInput name="why" [(ngModel)]="why"
                    /></mat-form-field>
                    <div>
                      <button class="act" type="submit">Reverse it</button>
                      <button class="plain" type="button" (click)="reversing.set('')">Leave it</button>
                    </div>
                  </form>
                  @if (line.conversionId) {
                    <p class="small">The whole change of form is reversed, with every jar that had a part in it.</p>
                  }
                  <vs-refusal [problem]="reversal.problem()" />
                </td>
              </tr>
            }
          }
        </tbody>
      </table>
    </div>
    @if (jar().earlier > 0 && !all()) {
      <p>
        {{ jar().earlier }} earlier lines. <button class="plain" type="button" (click)="showAll()">Show them</button>
      </p>
    }
    <vs-refusal [problem]="reading.problem()" />`,
  styles: `
    .what {
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JarLedger {
  private readonly api = inject(ApiClient);
  readonly jar = input.required<StockLot>();
  readonly changed = output();
  protected readonly words = LEDGER_WORDS;
  protected readonly lotWords = LEDGER_WORDS_OF_LOT;
  protected readonly all = signal<readonly StockLedgerLine[] | undefined>(undefined);
  protected readonly newestFirst = computed(() => [...(this.all() ?? this.jar().lines)].reverse());
  protected readonly reading = doing();
  protected readonly reversal = doing();
  protected readonly reversing = signal('');
  protected readonly why = signal('');

  protected readonly binds = (line: StockLedgerLine): boolean => line.kind === 'promise' || line.kind === 'release';
  protected readonly canReverse = (line: StockLedgerLine): boolean =>
    !line.reversed && !line.lot && line.kind !== 'reverse' && !this.binds(line);

  protected showAll(): void {
    this.reading.run(this.api.get('/api/stock-lots/{id}/ledger', { id: this.jar().row.id }), (lines) =>
      this.all.set(lines),
    );
  }

  protected reverse(movementId: string): void {
    this.reversal.run(
      this.api.post('/api/movements/{id}/reversal', { id: newId(), note: this.why() }, movementId),
      () => {
        this.reversing.set('');
        this.why.set('');
        this.all.set(undefined);
        this.changed.emit();
      },
    );
  }
}
