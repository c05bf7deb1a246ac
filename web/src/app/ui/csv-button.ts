import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { saveFile } from '../api/save-file';

/** One column of a list: its head, and what stands in it. */
export interface Column<T> {
  readonly head: string;
  readonly of: (row: T) => string | number | null;
}

/** Takes a list along as a table, as it is narrowed and sorted just now, all of its rows; nothing, where it has none. */
@Component({
  selector: 'vs-csv-button',
  template: `@if (rows().length > 0) {
    <button i18n type="button" class="act" (click)="save()">As a table (CSV)</button>
  }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CsvButton<T> {
  readonly name = input.required<string>();
  readonly rows = input.required<readonly T[]>();
  readonly columns = input.required<readonly Column<T>[]>();

  protected async save(): Promise<void> {
    const { default: Papa } = await import('papaparse');
    const cells = this.rows().map((row) => this.columns().map((c) => c.of(row) ?? ''));
    const text = Papa.unparse([this.columns().map((c) => c.head), ...cells], { newline: '\r\n', escapeFormulae: true });
    // Spreadsheets take it for UTF-8 by its mark.
    saveFile(new Blob(['\ufeff', text], { type: 'text/csv;charset=utf-8' }), `${this.name()}.csv`);
  }
}
