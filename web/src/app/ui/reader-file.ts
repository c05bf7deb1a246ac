import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { ColourConditions, FileSwatch, Lab, ReadingWay, Spectrum } from '@vestigia/core';
import { labOfSpectrum, readColourFile, sayColourFileRefusal } from '@vestigia/core';
import { RefusalNote } from './refusal';

/** A colour out of a file, as the new reading takes it. */
export interface FromFile {
  readonly lab: Lab;
  readonly way: ReadingWay;
  /** Band by band, where the file has it. */
  readonly spectrum: Spectrum | null;
}

const round = (value: number): number => Math.round(value * 100) / 100;

/** Spectra or colours out of a reader’s file: one swatch of it becomes the new reading. */
@Component({
  selector: 'vs-reader-file',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: `
    <label class="tick"
      ><ng-container i18n>A file of a reader: CGATS.17 text, or a table with wavelengths</ng-container>
      <input type="file" accept=".txt,.cgats,.csv,.tsv,text/plain,text/csv" (change)="open($event)"
    /></label>
    <vs-refusal [problem]="problem()" />
    @if (swatches().length > 0) {
      <mat-form-field
        ><mat-label i18n>Swatch of the file</mat-label
        ><select
          matNativeControl
          name="fileSwatch"
          [ngModelOptions]="alone"
          [ngModel]="chosen()"
          (ngModelChange)="choose($event)"
        >
          @for (s of swatches(); track $index) {
            <option [ngValue]="$index">{{ s.name }}</option>
          }
        </select></mat-form-field
      >
      <p class="small" role="status">{{ said() }}</p>
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReaderFile {
  /** The light and observer that the lot is read in. */
  readonly conditions = input.required<ColourConditions>();
  readonly taken = output<FromFile>();
  protected readonly swatches = signal<readonly FileSwatch[]>([]);
  /** Its field belongs to no form: there may be several of it in one. */
  protected readonly alone = { standalone: true };
  protected readonly chosen = signal(0);
  protected readonly problem = signal<{ readonly detail: string } | undefined>(undefined);
  protected readonly said = computed(() => {
    const { illuminant, observer } = this.conditions();
    return this.swatches()[this.chosen()]?.spectrum
      ? $localize`Worked out from its spectrum under ${illuminant}, ${observer}°.`
      : $localize`As the file has it: it counts as read under ${illuminant}, ${observer}°.`;
  });

  protected async open(event: Event): Promise<void> {
    const file = (event.target as HTMLInputElement).files?.[0];
    if (!file) return;
    const read = readColourFile(await file.text());
    this.problem.set(read.ok ? undefined : { detail: sayColourFileRefusal(read.refusal) });
    this.swatches.set(read.ok ? read.swatches : []);
    if (read.ok) this.choose(0);
  }

  protected choose(index: number): void {
    this.chosen.set(index);
    const swatch = this.swatches()[index];
    if (!swatch) return;
    const { L, a, b } = swatch.spectrum ? labOfSpectrum(swatch.spectrum, this.conditions()) : swatch.lab;
    this.taken.emit({
      lab: { L: round(L), a: round(a), b: round(b) },
      way: swatch.spectrum ? 'spectrum' : 'reader',
      spectrum: swatch.spectrum,
    });
  }
}
