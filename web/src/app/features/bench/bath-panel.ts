import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { LotDetail } from '@vestigia/contract';
import type { BathMoveKind, BenchAct } from '@vestigia/core';
import { BATH_MOVE_LABELS, evaporationGPerS, formatVolume, minutesInWork, readAmount } from '@vestigia/core';
import { FigureValue } from '../../ui/figure-value';
import type { EntryContent } from './entry-content';
import { BenchState } from './bench-state';
import { currentBath } from './leftover';
import { ScrollRegion } from '../../ui/scroll-region';
import { DraftOf } from '../../ui/draft';

const OFFERED: readonly BathMoveKind[] = ['add', 'takeOut', 'evaporate', 'level'];

/** What went into a bath and out of it; what is left at the end is offered to Stores. */
@Component({
  selector: 'vs-bath-panel',
  imports: [DraftOf, ScrollRegion, FormsModule, RouterLink, MatFormFieldModule, MatInputModule, FigureValue],
  templateUrl: './bath-panel.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BathPanel {
  /** What its template says by what holds. */
  protected readonly says = {
    bathOfBatch: (batch: string | number): string => $localize`The bath of batch ${batch}:batch::`,
    theBath: $localize`The bath:`,
  };

  private readonly state = inject(BenchState);
  readonly act = input.required<BenchAct>();
  readonly lot = input.required<LotDetail>();
  readonly recorded = output<EntryContent>();
  readonly closed = output();
  protected readonly rehearsal = this.state.isRehearsal;
  protected readonly offered = OFFERED;
  protected readonly label = BATH_MOVE_LABELS;
  protected readonly batch = signal(1);
  protected readonly kind = signal<BathMoveKind>('add');
  protected readonly volume = signal('');
  protected readonly trouble = signal('');
  protected readonly status = computed(() => currentBath(this.lot(), this.act().step, this.act().record, this.batch()));
  private readonly minutes = computed(() => minutesInWork(this.act().record, this.state.now()));
  private readonly steamFor = (lid: boolean): number => {
    const { step, record } = this.act();
    const temperatureC = record.temperaturesC.at(-1) ?? step.temperatureC;
    if (temperatureC === undefined) return 0;
    return Math.round(
      evaporationGPerS(
        { liquorMl: this.status().bath?.liquor.value ?? 1000, temperatureC, lid },
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
      this.trouble.set(reading.message);
      return;
    }
    this.trouble.set('');
    this.recorded.emit({
      kind: 'bath',
      detail: { batch: this.batch(), bath: { kind: this.kind(), ml: reading.amount / 1000 } },
    });
    this.volume.set('');
  }

  protected readonly volumeText = formatVolume;
}
