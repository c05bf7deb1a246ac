import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { LabUnder } from '@vestigia/contract';
import { describeColour } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { NumberField } from '../../ui/number-field';

/** Names a result worth repeating. */
@Component({
  selector: 'vs-new-colourway',
  imports: [NumberField, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, Swatch],
  templateUrl: './new-colourway.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewColourwayPage {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly action = pageAction();
  private readonly recipes = liveQuery(['recipes'], () => this.api.get('/api/recipes'));
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  protected readonly versions = computed(() =>
    (this.recipes.value() ?? []).flatMap((r) =>
      r.versions
        .filter((v) => v.status !== 'retired')
        .map((v) => ({ id: v.id, label: `${r.name}, version ${v.number} (${v.status})` })),
    ),
  );
  protected readonly bases = computed(() => (this.materials.value() ?? []).filter((m) => m.kind === 'fibre'));
  protected readonly name = signal('');
  protected readonly recipeVersionId = signal('');
  protected readonly baseId = signal('');
  protected readonly L = signal<number | null>(null);
  protected readonly a = signal<number | null>(null);
  protected readonly b = signal<number | null>(null);
  protected readonly illuminant = signal<LabUnder['illuminant']>('D65');
  protected readonly observer = signal<LabUnder['observer']>('10');
  protected readonly tolerance = signal(2);
  protected readonly note = signal('');
  private readonly id = newId();
  /** Nothing until all three stand: an empty master is empty. */
  protected readonly master = computed((): LabUnder | null => {
    const [L, a, b] = [this.L(), this.a(), this.b()];
    return L === null || a === null || b === null
      ? null
      : { L, a, b, illuminant: this.illuminant(), observer: this.observer() };
  });
  protected readonly isBegun = computed(
    () => this.master() === null && [this.L(), this.a(), this.b()].some((v) => v !== null),
  );
  protected readonly label = computed(() => {
    const master = this.master();
    return master ? describeColour(master) : 'Not known yet: the first lot that is liked becomes the master.';
  });

  /** As a lot hands its colour over: “this is it”. */
  readonly version = input<string>();
  readonly base = input<string>();
  readonly lab = input<string>();

  constructor() {
    effect(() => {
      this.recipeVersionId.set(this.version() ?? '');
      this.baseId.set(this.base() ?? '');
      const [L, a, b] = (this.lab() ?? '').split(' ').map(Number);
      if (L === undefined || a === undefined || b === undefined) return;
      this.L.set(L);
      this.a.set(a);
      this.b.set(b);
    });
  }

  protected keep(): void {
    const body = {
      id: this.id,
      name: this.name(),
      recipeVersionId: this.recipeVersionId(),
      baseMaterialId: this.baseId(),
      master: this.master(),
      toleranceDeltaE: this.tolerance(),
      note: this.note(),
    };
    this.action.run(this.api.post('/api/colourways', body), ({ id }) => void this.router.navigate(['/colourways', id]));
  }
}
