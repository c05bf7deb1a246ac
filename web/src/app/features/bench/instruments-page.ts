import { ChangeDetectionStrategy, Component, DestroyRef, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { InstrumentKind } from '@vestigia/core';
import { decimals, formatTemperature, INSTRUMENT_KINDS, INSTRUMENT_LABELS, sayLab, sayPh } from '@vestigia/core';
import type { ShownProblem } from '../../api/api-client';
import type { Source } from '../../api/instruments';
import { Instruments, SOURCES } from '../../api/instruments';
import { RefusalNote } from '../../ui/refusal';
import { SimulatorControls } from './simulator-controls';
import { ScrollRegion } from '../../ui/scroll-region';

const SOURCE_LABELS: Readonly<Record<Source, string>> = {
  hand: $localize`read by eye and typed (a keyboard-wedge types by itself)`,
  simulated: $localize`the simulated one that ships with Vestigia`,
  serial: $localize`one on this tablet’s own serial port`,
};

/** Where this tablet takes its readings from, and what the instruments say just now. */
@Component({
  selector: 'vs-instruments-page',
  imports: [ScrollRegion, RouterLink, SimulatorControls, RefusalNote],
  providers: [Instruments],
  templateUrl: './instruments-page.html',
  styles: `
    fieldset {
      margin: 0 0 1rem;
    }
    .reading {
      font-size: 1.8rem;
      font-weight: 800;
      margin: 0.25rem 0;
      font-variant-numeric: tabular-nums;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class InstrumentsPage {
  protected readonly instruments = inject(Instruments);
  protected readonly kinds = INSTRUMENT_KINDS;
  protected readonly label = INSTRUMENT_LABELS;
  protected readonly sources = SOURCES;
  protected readonly sourceLabel = SOURCE_LABELS;
  protected readonly problem = signal<ShownProblem | undefined>(undefined);
  private readonly chosen = signal(0);

  constructor() {
    this.instruments.start(null);
    inject(DestroyRef).onDestroy(() => this.instruments.stop());
  }

  protected source(kind: InstrumentKind): Source {
    this.chosen();
    return this.instruments.sourceOf(kind);
  }

  protected choose(kind: InstrumentKind, source: Source): void {
    this.instruments.choose(kind, source);
    this.chosen.update((n) => n + 1);
  }

  protected attach(kind: InstrumentKind): void {
    this.instruments.attach(kind).then(
      () => this.problem.set(undefined),
      (error: unknown) =>
        this.problem.set({
          detail:
            error instanceof Error && error.message.endsWith('.')
              ? error.message
              : $localize`No port was opened. Choose the instrument’s port in the list the browser shows, and see that no other program holds it.`,
        }),
    );
  }

  protected reading(kind: InstrumentKind): string {
    if (this.source(kind) === 'hand') return '–';
    switch (kind) {
      case 'balance': {
        const pan = this.instruments.pan();
        return pan === undefined || pan.weightG === null
          ? $localize`nothing yet`
          : `${decimals(pan.weightG, 1)} g · ${pan.label}`;
      }
      case 'probe': {
        const c = this.instruments.temperatureC();
        const ph = this.instruments.ph();
        return c === undefined
          ? $localize`not in a bath`
          : `${formatTemperature(Math.round(c * 10) / 10)}${ph === undefined ? '' : ` · ${sayPh(ph)}`}`;
      }
      case 'colour': {
        const c = this.instruments.colour();
        return c ? sayLab(c, 2) : $localize`nothing read yet`;
      }
    }
  }
}
