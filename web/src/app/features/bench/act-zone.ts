import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail } from '@vestigia/contract';
import type { BenchAct, ZoneDeed } from '@vestigia/core';
import { ZONE_LABELS, sayMinutes } from '@vestigia/core';
import { NumberField } from '../../ui/number-field';
import { PlacedPicture } from '../../ui/placed-picture';
import { BenchFocus } from './bench-focus';
import { BenchState } from './bench-state';
import { clockLabel } from './clock-label';
import { Decimals } from '../../ui/decimals';

/** Placed colour, zone by zone: where it goes, with how much, for how long, on which piece. */
@Component({
  selector: 'vs-act-zone',
  imports: [Decimals, FormsModule, MatFormFieldModule, MatInputModule, NumberField, PlacedPicture],
  templateUrl: './act-zone.html',
  styleUrl: './bench.scss',
  styles: `
    .where {
      display: block;
      margin-bottom: 1rem;
      max-width: 46rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ActZone {
  /** What its template says by what holds. */
  protected readonly says = {
    turnIn: (order: string | number, waitLabel: string | number): string => $localize`Turn ${order} in ${waitLabel}`,
    comesOutNow: (title: string | number): string => $localize`${title} comes out now`,
    aPiece: $localize` a piece`,
    itIsOutAlready: $localize`It is out already`,
    itIsOut: $localize`It is out`,
    done: $localize`Done`,
  };

  private readonly state = inject(BenchState);
  protected readonly focus = inject(BenchFocus);
  readonly act = input.required<Extract<BenchAct, { kind: 'zone' }>>();
  readonly lot = input.required<LotDetail>();
  readonly main = viewChild<ElementRef<HTMLButtonElement>>('main');
  protected readonly label = ZONE_LABELS;
  protected readonly minutes = sayMinutes;
  private readonly which = computed(() => `${this.act().zone.zone} ${this.act().piece ?? 'all'}`);
  /** Only where it was not as planned. */
  protected readonly ml = linkedSignal<string, number | null>({ source: this.which, computation: () => null });
  protected readonly note = linkedSignal<string, string>({ source: this.which, computation: () => '' });
  protected readonly more = signal(false);
  protected readonly waitLabel = computed(() => {
    const ms = this.act().dueMs - this.state.now();
    return ms > 0 ? clockLabel(ms) : '';
  });
  /** It stays in its liquor for a while: said when it goes in, and when it comes out. */
  protected readonly isTimed = computed(() => this.act().zone.minutes > 0);
  protected readonly onWhich = computed(() => {
    const { piece, of } = this.act();
    return piece === null
      ? of === 1
        ? $localize`the piece`
        : $localize`all ${of} pieces`
      : $localize`piece ${piece} of ${of}`;
  });
  protected tell(did: ZoneDeed): void {
    const { zone, piece } = this.act();
    const ml = this.ml();
    void this.focus.record({
      kind: 'zone',
      text: this.note().trim() || null,
      detail: { zone: zone.zone, did, ...(piece === null ? {} : { piece }), ...(ml === null ? {} : { ml }) },
    });
  }

  protected finish(): void {
    void this.focus.record({ kind: 'finish', text: this.note().trim() || null });
  }
}
