import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { KeptSpent, LotDetail } from '@vestigia/contract';
import { KEPT_FORMS } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { RefusalNote } from '../../ui/refusal';
import { DraftOf } from '../../ui/draft';
import { Said } from '../../ui/said';

/** Chips, husks and bark that gave once and are kept, frozen or dried, for a paler bath. */
@Component({
  selector: 'vs-keep-spent',
  imports: [Said, DraftOf, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  templateUrl: './keep-spent.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeepSpent {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  readonly lot = input.required<LotDetail>();
  protected readonly action = pageAction();
  protected readonly forms = KEPT_FORMS;
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  protected readonly drawn = computed(() => this.lot().plan.materials.filter((m) => m.kind === 'dyestuff'));
  protected readonly chosen = signal('');
  protected readonly of = computed(() => this.drawn().find((m) => m.materialId === this.chosen()) ?? this.drawn()[0]);
  protected readonly form = signal<KeptSpent['form']>('frozen');
  protected readonly weight = signal('');
  protected readonly place = signal('');
  protected readonly name = computed(() =>
    $localize`${this.of()?.name ?? $localize`Dyestuff`}, drawn once`.slice(0, 120),
  );

  protected keep(): void {
    const of = this.of();
    if (!of) return;
    const known = (this.materials.value() ?? []).find((m) => m.name === this.name());
    const body = {
      id: newId(),
      movementId: newId(),
      newMaterialId: newId(),
      ofMaterialId: of.materialId,
      materialId: known?.id ?? null,
      newMaterial: this.name(),
      form: this.form(),
      tag: '',
      quantityText: this.weight(),
      place: this.place(),
      note: '',
    };
    this.action.run(
      this.api.post('/api/lots/{id}/spent', body, this.lot().summary.id),
      ({ id }) => void this.router.navigate(['/stores', id]),
    );
  }
}
