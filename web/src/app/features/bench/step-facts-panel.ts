import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail } from '@vestigia/contract';
import type { BenchAct, ShadeOf } from '@vestigia/core';
import { WHOLE, readTemperatureC } from '@vestigia/core';
import { ShadeChoice } from '../../ui/shade-choice';
import type { Panel, PhotoOf } from './bench-focus';
import type { EntryContent } from './entry-content';
import { BenchState } from './bench-state';
import { UnplannedPanel } from './unplanned-panel';
import { KeepOriginals } from '../../ui/keep-originals';
import { DraftOf } from '../../ui/draft';
import { InDegrees } from '../../ui/degrees';

/** Quick notes, as they would be called across the room. */
const NOTES = [
  $localize`Lifted and turned`,
  $localize`Lid on`,
  $localize`Lid off`,
  $localize`Heat down`,
  $localize`Even so far`,
  $localize`Patchy`,
  $localize`Colour is strong`,
  $localize`Colour is weak`,
  $localize`Floats: pushed under`,
  $localize`Foam on top`,
  $localize`Rinse runs clear`,
  $localize`Smells odd`,
] as const;
/** Common departures from the plan, each with its likely effect. */
const OTHERWISE = [
  $localize`It boiled: yellows dull and wool felts`,
  $localize`Got hotter than it should, for a moment: the shade may be duller`,
  $localize`Started late: the fibre stood, so it may take unevenly`,
  $localize`Heat was off for a while: expect paler`,
  $localize`Fibre went in dry: expect patches`,
  $localize`Pieces were crowded: expect fold marks`,
  $localize`Bath had to be stretched with water: expect paler`,
  $localize`A spoon instead of the balance: the dose is uncertain`,
  $localize`Dyestuff was not strained: expect spots`,
  $localize`Another pot lid or spoon that met iron: expect saddened`,
  $localize`Agitated too much: the wool may have felted`,
  $localize`One piece fell out or was lifted early: it will be paler`,
] as const;

/** What a person says at the bench with a tap or a few words: notes, departures, temperature. */
@Component({
  selector: 'vs-step-facts-panel',
  imports: [
    InDegrees,
    DraftOf,
    KeepOriginals,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    ShadeChoice,
    UnplannedPanel,
  ],
  templateUrl: './step-facts-panel.html',
  styleUrl: './taps.scss',
  styles: `
    .photo {
      display: inline-flex;
      align-items: center;
      min-height: 56px;
    }
    .photo input {
      position: absolute;
      opacity: 0;
      width: 1px;
    }
    .photo:focus-within {
      outline: 3px solid var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StepFactsPanel {
  /** What its template says by what holds. */
  protected readonly says = {
    temperature: $localize`Temperature`,
  };

  private readonly state = inject(BenchState);
  readonly panel = input.required<Panel>();
  readonly act = input.required<BenchAct>();
  readonly lot = input.required<LotDetail>();
  readonly recorded = output<EntryContent>();
  readonly photographed = output<PhotoOf>();
  readonly closed = output();
  protected readonly notes = NOTES;
  protected readonly otherwise = OTHERWISE;
  protected readonly rehearsal = this.state.isRehearsal;
  protected readonly text = signal('');
  /** The note is shown first when the lot is dyed again. */
  protected readonly next = signal(false);

  /** What of the lot the note or the photograph is of; `undefined`: the step as a whole. */
  protected readonly of = signal<ShadeOf | undefined>(undefined);
  protected readonly noteDetail = computed(() => {
    const of = this.of();
    return of || this.next() ? { ...(of ? { of } : {}), ...(this.next() ? { next: true } : {}) } : null;
  });

  protected ofOne(): void {
    this.of.update((of) => (of ? undefined : WHOLE));
  }

  protected degrees(): number | null {
    return readTemperatureC(this.text()) ?? null;
  }

  protected photo(event: Event): void {
    const file = (event.target as HTMLInputElement).files?.[0];
    if (file) this.photographed.emit({ file, of: this.of() });
  }
}
