import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { KeptFibre, LotDetail } from '@vestigia/contract';
import type { LightPlace } from '@vestigia/core';
import { LIGHT_PLACES, LIGHT_PLACE_LABELS, TREATMENTS, WHOLE, sayShade } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { RefusalNote } from '../../ui/refusal';
import { DraftOf } from '../../ui/draft';
import { toChoose } from '../../ui/put-away-too';
import { Said } from '../../ui/said';

/** Pieces of a lot kept as fibre in Stores: mordanted ahead or dyed, a base for a later lot. */
@Component({
  selector: 'vs-keep-pieces',
  imports: [Said, DraftOf, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  templateUrl: './keep-pieces.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeepPieces {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  readonly lot = input.required<LotDetail>();
  protected readonly action = pageAction();
  protected readonly treatments = TREATMENTS;
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  protected readonly bases = computed(() =>
    toChoose(this.materials.value()).filter((m) => m.kind === 'fibre' && m.id !== this.lot().base.id),
  );
  protected readonly treatment = signal<KeptFibre['treatment']>('mordanted');
  protected readonly lights = LIGHT_PLACES;
  protected readonly lightLabel = LIGHT_PLACE_LABELS;
  protected readonly light = signal<LightPlace | ''>('');
  protected readonly group = signal('');
  protected readonly groups = computed(() =>
    this.lot().plan.groups.map((g) => ({
      key: g.key,
      label: sayShade(this.lot().plan, { ...WHOLE, group: g.key }),
      baseName: g.baseName,
    })),
  );
  protected readonly baseId = signal('');
  protected readonly name = signal('');
  protected readonly weight = signal('');
  protected readonly place = signal('');
  protected readonly suggested = computed(() => {
    const base = this.groups().find((g) => g.key === this.group())?.baseName ?? this.lot().base.name;
    return `${base}, ${this.treatment() === 'mordanted' ? $localize`mordanted` : this.lot().summary.colourway.name}`;
  });

  protected keep(): void {
    const body = {
      id: newId(),
      movementId: newId(),
      newBaseId: newId(),
      treatment: this.treatment(),
      group: this.group() || null,
      light: this.light() || null,
      baseId: this.baseId() || null,
      newBase: this.name().trim() || this.suggested(),
      tag: '',
      quantityText: this.weight(),
      place: this.place(),
      note: '',
    };
    this.action.run(
      this.api.post('/api/lots/{id}/fibre', body, this.lot().summary.id),
      ({ id }) => void this.router.navigate(['/stores', id]),
    );
  }
}
