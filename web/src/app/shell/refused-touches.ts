import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { degreeMark, readTemperatureC } from '@vestigia/core';
import type { StoredDraft, StoredPhoto } from '../api/bench-shelf';
import { saveFile } from '../api/save-file';
import { Outbox } from '../api/outbox';

/** What the server would not take: each with its sentence, to be put right, kept as a file, or thrown away by a person. */
@Component({
  selector: 'vs-refused-touches',
  imports: [FormsModule, MatFormFieldModule, MatInputModule],
  templateUrl: './refused-touches.html',
  styleUrl: './shell.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RefusedTouches {
  protected readonly outbox = inject(Outbox);
  protected readonly mending = signal<number | undefined>(undefined);
  protected readonly text = signal('');
  protected readonly amount = signal('');

  protected open(t: StoredDraft): void {
    this.mending.set(t.key);
    this.text.set(t.entry.text ?? '');
    this.amount.set(
      t.entry.weighing?.quantityText ?? (t.entry.kind === 'temperature' ? String(t.entry.temperatureC ?? '') : ''),
    );
  }

  protected amountLabel({ entry }: StoredDraft): string {
    return entry.kind === 'temperature'
      ? $localize`Temperature, ${degreeMark()}`
      : entry.weighing
        ? $localize`How much`
        : '';
  }

  protected mend(t: StoredDraft): void {
    const change =
      t.entry.kind === 'temperature'
        ? { temperatureC: readTemperatureC(this.amount()) ?? null }
        : t.entry.weighing
          ? { quantityText: this.amount() }
          : {};
    void this.outbox.mend(t.key, { text: this.text(), ...change });
    this.mending.set(undefined);
  }

  protected save(t: StoredDraft): void {
    const kept = { what: t.label, why: t.refused, at: this.outbox.atOf(t), lotId: t.lotId, entry: t.entry };
    saveFile(new Blob([JSON.stringify(kept, null, 2)], { type: 'application/json' }), `${t.entry.id}.json`);
  }

  protected savePhoto(photo: StoredPhoto): void {
    saveFile(photo.file, photo.name);
  }
}
