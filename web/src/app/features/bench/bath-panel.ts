import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { LotDetail } from '@vestigia/contract';
import type { BathMoveKind, BenchAct } from '@vestigia/core';
import { BATH_MOVE_WORDS, evaporationGPerS, formatVolume, minutesInWork, readAmount } from '@vestigia/core';
import { FigureValue } from '../../ui/figure-value';
import type { Said } from './bench-state';
import { BenchState } from './bench-state';
import { standingBath } from './leftover';

const OFFERED: readonly BathMoveKind[] = ['add', 'takeOut', 'evaporate', 'level'];

/** What went into a bath and out of it; what is left at the end is offered to Stores. */
@Component({
  selector: 'vs-bath-panel',
  imports: [FormsModule, RouterLink, MatFormFieldModule, MatInputModule, FigureValue],
  template: ` <form class="aside" (ngSubmit)="keep()">
    <h2>
      The bath
      @if (lot().plan.batches.length > 1) {
        of batch {{ batch() }}
      }
      : <vs-figure [figure]="standing().balance.left" name="left in the bath" />
    </h2>
    <table class="ledger">
      <tbody>
        @for (m of standing().moves; track $index) {
          <tr>
            <td>{{ words[m.kind] }}</td>
            <td class="number">
              {{ m.kind === 'add' || m.kind === 'fill' ? '+' : m.kind === 'level' ? '=' : '−' }} {{ inWords(m.ml) }}
            </td>
            <td class="soft">{{ m.words }}</td>
          </tr>
        }
      </tbody>
    </table>
    @if (steam() >= 50) {
      <p class="small">
        By heat and time about {{ inWords(steam()) }} will have steamed off with the lid on,
        {{ inWords(steamOpen()) }} without.
      </p>
    }
    <div class="fields">
      @if (lot().plan.batches.length > 1) {
        <mat-form-field
          ><mat-label>Batch</mat-label
          ><select matNativeControl name="batch" [(ngModel)]="batch">
            @for (b of lot().plan.batches; track b.number) {
              <option [ngValue]="b.number">{{ b.number }} · {{ b.vesselName }}</option>
            }
          </select></mat-form-field
        >
      }
      <mat-form-field
        ><mat-label>What happened</mat-label
        ><select matNativeControl name="kind" [(ngModel)]="kind">
          @for (k of offered; track k) {
            <option [value]="k">{{ words[k] }}</option>
          }
        </select></mat-form-field
      >
      <mat-form-field
        ><mat-label>How much</mat-label><input matInput name="volume" [(ngModel)]="volume" placeholder="e.g. 500 ml"
      /></mat-form-field>
    </div>
    @if (standing().strength; as f) {
      <p>
        Likely still in it: <vs-figure [figure]="f" name="left in the bath" /> of {{ standing().strengthOf }}, once the
        pieces are out.
      </p>
    }
    @if (trouble()) {
      <p class="off">{{ trouble() }}</p>
    }
    <button class="act" type="submit">Write it down</button>
    @if (!rehearsal()) {
      <a class="act" routerLink="/stores/liquor" [queryParams]="standing().toStores">Keep what is left</a>
    }
    <button class="plain" type="button" (click)="closed.emit()">Back</button>
  </form>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BathPanel {
  private readonly state = inject(BenchState);
  readonly act = input.required<BenchAct>();
  readonly lot = input.required<LotDetail>();
  readonly said = output<Said>();
  readonly closed = output();
  protected readonly rehearsal = this.state.isRehearsal;
  protected readonly offered = OFFERED;
  protected readonly words = BATH_MOVE_WORDS;
  protected readonly batch = signal(1);
  protected readonly kind = signal<BathMoveKind>('add');
  protected readonly volume = signal('');
  protected readonly trouble = signal('');
  protected readonly standing = computed(() =>
    standingBath(this.lot(), this.act().step, this.act().record, this.batch()),
  );
  private readonly minutes = computed(() => minutesInWork(this.act().record, this.state.now()));
  private readonly steamFor = (lid: boolean): number => {
    const { step, record } = this.act();
    const temperatureC = record.temperaturesC.at(-1) ?? step.temperatureC;
    if (temperatureC === undefined) return 0;
    return Math.round(
      evaporationGPerS(
        { liquorMl: this.standing().bath?.liquor.value ?? 1000, temperatureC, lid },
        this.state.around()?.room.roomC ?? 18,
      ) *
        this.minutes() *
        60,
    );
  };
  protected readonly steam = computed(() => this.steamFor(true));
  protected readonly steamOpen = computed(() => this.steamFor(false));

  protected keep(): void {
    const reading = readAmount(this.volume(), 'volume');
    if (!reading.ok) {
      this.trouble.set(reading.sentence);
      return;
    }
    this.trouble.set('');
    this.said.emit({ detail: { batch: this.batch(), bath: { kind: this.kind(), ml: reading.amount / 1000 } } });
    this.volume.set('');
  }

  protected readonly inWords = formatVolume;
}
