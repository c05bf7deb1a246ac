import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { LotState, LotSummary } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { choosing } from '../../ui/choosing';
import { fitsWords } from '../../ui/fits-words';
import { ledgerView } from '../../ui/ledger-view';
import { LOT_COLUMNS, LotLedger } from '../../ui/lot-ledger';
import { LOT_STATE_LABELS } from '../../format/lot-states';
import { inAddress } from '../../services/in-address';
import { RefusalNote } from '../../ui/refusal';
import { ActBar } from '../../ui/act-bar';
import type { Column } from '../../ui/csv-button';
import { CsvButton } from '../../ui/csv-button';
import { ViewMenu } from '../../ui/view-menu';
import { ChosenLots } from './chosen-lots';
import { May } from '../../ui/may';

/** Every lot ever dyed, each with its thread. */
@Component({
  selector: 'vs-lots',
  imports: [
    CsvButton,
    May,
    ActBar,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    LotLedger,
    RefusalNote,
    ViewMenu,
    ChosenLots,
  ],
  template: `
    <div class="head">
      <h1 i18n>Lots</h1>
    </div>
    <vs-refusal [problem]="lots.problem()" />
    @if (lots.value(); as all) {
      @if (all.length === 0) {
        <div class="empty">
          <p i18n>
            A lot is so many pieces of one colourway, dyed as one. Each is kept for good, with everything it was made
            from.
          </p>
          <a i18n class="act main" routerLink="/lots/new">Start a lot</a>
          <a i18n class="act" routerLink="/lots/first">A first lot, step by step</a>
        </div>
      } @else {
        <div class="filters">
          <mat-form-field subscriptSizing="dynamic"
            ><mat-label i18n>Only lots of …</mat-label
            ><input
              matInput
              name="words"
              [(ngModel)]="label"
              placeholder="colourway, number or person"
              i18n-placeholder
          /></mat-form-field>
          <mat-form-field subscriptSizing="dynamic"
            ><mat-label i18n>State</mat-label
            ><select matNativeControl name="state" [(ngModel)]="state">
              <option i18n value="">any</option>
              @for (s of states; track s) {
                <option [value]="s">{{ stateLabel[s] }}</option>
              }
            </select></mat-form-field
          >
          <p i18n class="small soft">{{ matching().length }} of {{ all.length }} lots</p>
          <vs-view-menu [view]="view" />
        </div>
        <vs-lot-ledger [lots]="view.sorted()" [view]="view" [choosing]="choosing" />
      }
    }
    <vs-act-bar class="of-page">
      @if (choosing.on()) {
        <vs-chosen-lots [lots]="choosing.rows()" [columns]="columns" (closed)="choosing.turn(false)" />
      } @else {
        <a i18n *vsMay="'helper'" class="act main" routerLink="/lots/new">Start a lot</a>
        @if (matching().length > 0) {
          <button i18n *vsMay="'helper'" class="plain" type="button" (click)="choosing.turn(true)">
            Choose several
          </button>
        }
        <vs-csv-button *vsMay="'dyer'" name="lots" [rows]="view.sorted()" [columns]="columns" />
      }
    </vs-act-bar>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LotsPage {
  private readonly api = inject(ApiClient);
  protected readonly states = Object.keys(LOT_STATE_LABELS) as LotState[];
  protected readonly stateLabel = LOT_STATE_LABELS;
  protected readonly lots = liveQuery(['lots'], () => this.api.get('/api/lots'));
  protected readonly label = inAddress('find');
  protected readonly state = inAddress('state');
  protected readonly columns: readonly Column<LotSummary>[] = [
    { head: 'lot', of: (l) => l.tag },
    { head: 'colourway', of: (l) => l.colourway.name },
    { head: 'pieces', of: (l) => l.pieces },
    { head: 'piece weight, g', of: (l) => l.pieceWeightG },
    { head: 'state', of: (l) => LOT_STATE_LABELS[l.state] },
    { head: 'L*', of: (l) => l.result?.L ?? null },
    { head: 'a*', of: (l) => l.result?.a ?? null },
    { head: 'b*', of: (l) => l.result?.b ?? null },
    { head: 'delta E to master', of: (l) => l.deltaE },
    { head: 'again of', of: (l) => l.reorderOf?.tag ?? null },
    { head: 'made', of: (l) => l.at },
    { head: 'by', of: (l) => l.by.name },
  ];
  protected readonly matching = computed(() => {
    // An address somebody wrote may name a state that isn’t there.
    const wanted = this.state() in LOT_STATE_LABELS ? this.state() : '';
    return (this.lots.value() ?? []).filter(
      (l) => (wanted === '' || l.state === wanted) && fitsWords(this.label(), l.tag, l.colourway.name, l.by.name),
    );
  });
  protected readonly view = ledgerView(LOT_COLUMNS, '-number', this.matching);
  protected readonly choosing = choosing(this.view.sorted);
}
