import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { LotDetail } from '@vestigia/contract';
import type { BathMove, BathMoveKind, BenchAct } from '@vestigia/core';
import { BATH_MOVE_WORDS, carriedOffMl, evaporationGPerS, foldBath, foldRun, formatVolume, leftInBath, minutesInWork, readAmount, takesPieces } from '@vestigia/core';
import { FigureValue } from '../../ui/figure-value';
import type { Said } from './bench-state';
import { BenchState } from './bench-state';

const OFFERED: readonly BathMoveKind[] = ['add', 'takeOut', 'evaporate', 'level'];
/** Share of a dose that fibre is taken to have drawn, where no sample says otherwise. */
const USUAL_TAKEN = 0.6;

/** What went into a bath and out of it; what is left at the end is offered to Stores. */
@Component({
  selector: 'vs-bath-panel',
  imports: [FormsModule, RouterLink, MatFormFieldModule, MatInputModule, FigureValue],
  template: `
    <form class="aside" (ngSubmit)="keep()">
      <h2>The bath@if (lot().plan.batches.length > 1) { of batch {{ batch() }} }: <vs-figure [figure]="balance().left" name="left in the bath" /></h2>
      <table class="ledger"><tbody>@for (m of moves(); track $index) { <tr><td>{{ words[m.kind] }}</td><td class="number">{{ m.kind === 'add' || m.kind === 'fill' ? '+' : m.kind === 'level' ? '=' : '−' }} {{ inWords(m.ml) }}</td><td class="soft">{{ m.words }}</td></tr> }</tbody></table>
      @if (steam() >= 50) { <p class="small">By heat and time about {{ inWords(steam()) }} will have steamed off with the lid on, {{ inWords(steamOpen()) }} without.</p> }
      <div class="fields">
        @if (lot().plan.batches.length > 1) { <mat-form-field><mat-label>Batch</mat-label><select matNativeControl name="batch" [(ngModel)]="batch">@for (b of lot().plan.batches; track b.number) { <option [ngValue]="b.number">{{ b.number }} · {{ b.vesselName }}</option> }</select></mat-form-field> }
        <mat-form-field><mat-label>What happened</mat-label><select matNativeControl name="kind" [(ngModel)]="kind">@for (k of offered; track k) { <option [value]="k">{{ words[k] }}</option> }</select></mat-form-field>
        <mat-form-field><mat-label>How much</mat-label><input matInput name="volume" [(ngModel)]="volume" placeholder="e.g. 500 ml"></mat-form-field>
      </div>
      @if (strength(); as f) { <p>Likely still in it: <vs-figure [figure]="f" name="left in the bath" /> of {{ strengthOf() }}.</p> }
      @if (trouble()) { <p class="off">{{ trouble() }}</p> }
      <button class="act" type="submit">Write it down</button>
      @if (!rehearsal()) { <a class="act" routerLink="/stores/liquor" [queryParams]="toStores()">Keep what is left</a> }
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
  private readonly bath = computed(() => this.act().step.baths.find((b) => b.batches.includes(this.batch())) ?? this.act().step.baths[0]);
  protected readonly moves = computed((): BathMove[] => {
    const bath = this.bath();
    const record = this.act().record;
    const its = (record.bathMoves ?? []).filter((m) => m.batch === this.batch()).map((m) => ({ kind: m.kind, ml: m.ml, words: '' }));
    const samples = (record.samples ?? []).filter((s) => s.of === 'liquor').length;
    return [{ kind: 'fill', ml: bath?.liquor.value ?? 0, words: bath?.vesselName ?? '' }, ...its, ...(samples > 0 ? [{ kind: 'takeOut' as const, ml: samples * 10, words: `${samples} samples, 10 ml each` }] : [])];
  });
  protected readonly balance = computed(() => foldBath(this.moves()));
  private readonly minutes = computed(() => minutesInWork(this.act().record, this.state.now()));
  private readonly steamFor = (lid: boolean): number => {
    const { step, record } = this.act();
    const temperatureC = record.temperaturesC.at(-1) ?? step.temperatureC;
    if (temperatureC === undefined) return 0;
    return Math.round(evaporationGPerS({ liquorMl: this.bath()?.liquor.value ?? 1000, temperatureC, lid }, this.state.around()?.room.roomC ?? 18) * this.minutes() * 60);
  };
  protected readonly steam = computed(() => this.steamFor(true));
  protected readonly steamOpen = computed(() => this.steamFor(false));

  /** Volume after the pieces are lifted, and what is likely still in it, as Stores wants it. */
  protected readonly toStores = computed(() => {
    const { step } = this.act();
    const lot = this.lot();
    const lifted = takesPieces(step) ? carriedOffMl(this.bath()?.wof.value ?? 0) : 0;
    const ml = Math.max(0, this.balance().left.value - lifted);
    const dose = this.dose();
    return { fromLot: lot.summary.id, litres: (Math.round(ml / 100) / 10).toString(), pot: this.bath()?.vesselName ?? '', kind: step.kind === 'mordant' ? 'mordantBath' : 'dyeBath', named: `${lot.summary.colourway.name} bath, ${lot.summary.tag}`, ...(dose ? { of: dose.materialId, dosed: `${dose.grams} g` } : {}) };
  });

  private readonly dose = computed(() => lastDose(this.lot(), this.act().step.index, this.batch()));
  protected readonly strength = computed(() => { const dose = this.dose(); const { left, addedMl } = this.balance(); return dose && addedMl > 0 ? leftInBath(dose.grams, USUAL_TAKEN, Math.min(1, left.value / addedMl)) : undefined; });
  protected readonly strengthOf = computed(() => this.lot().plan.materials.find((m) => m.materialId === this.dose()?.materialId)?.name ?? '');

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

/** What was weighed into this bath last, by grams: the step's own material, or that of the steps before it in the same bath. */
function lastDose(lot: LotDetail, stepIndex: number, batch: number): { materialId: string; grams: number } | undefined {
  const records = foldRun(lot.entries, lot.plan.steps.length);
  for (let i = stepIndex; i > 0; i -= 1) {
    const its = (records[i]?.weighings ?? []).filter((w) => w.batch === batch);
    const first = its[0];
    if (first) return { materialId: first.materialId, grams: Math.round(its.filter((w) => w.materialId === first.materialId).reduce((sum, w) => sum + w.amount, 0) / 100) / 10 };
  }
  return undefined;
}
