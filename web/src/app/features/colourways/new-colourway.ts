import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { LabUnder } from '@vestigia/contract';
import type { Lab } from '@vestigia/core';
import { said, describeColour } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { ColourEntry } from '../../ui/colour-entry';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { NumberField } from '../../ui/number-field';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';
import { toChoose } from '../../ui/put-away-too';

/** Names a result worth repeating. */
@Component({
  selector: 'vs-new-colourway',
  imports: [
    DraftOf,
    ActBar,
    ColourEntry,
    NumberField,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    RefusalNote,
    Swatch,
  ],
  templateUrl: './new-colourway.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NewColourwayPage {
  /** What its template says by what holds. */
  protected readonly says = {
    swatchIncomplete: $localize`A swatch wants all three: L*, a* and b*.`,
  };

  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly action = pageAction();
  private readonly recipes = liveQuery(['recipes'], () => this.api.get('/api/recipes'));
  private readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  protected readonly versions = computed(() =>
    toChoose(this.recipes.value()).flatMap((r) =>
      r.versions
        .filter((v) => v.status !== 'retired')
        .map((v) => ({ id: v.id, label: $localize`${r.name}, version ${v.number} (${said(v.status)})` })),
    ),
  );
  protected readonly bases = computed(() =>
    toChoose(this.materials.value(), this.baseId()).filter((m) => m.kind === 'fibre'),
  );
  protected readonly name = signal('');
  protected readonly recipeVersionId = signal('');
  protected readonly baseId = signal('');
  private readonly entry = viewChild(ColourEntry);
  protected readonly illuminant = signal<LabUnder['illuminant']>('D65');
  protected readonly observer = signal<LabUnder['observer']>('10');
  protected readonly tolerance = signal(2);
  protected readonly note = signal('');
  private readonly id = newId();
  protected readonly under = computed(() => ({ illuminant: this.illuminant(), observer: this.observer() }));
  /** Where a ladder begins: at the undyed base, or at a middling grey while nobody chose one. */
  protected readonly start = computed(
    (): LabUnder =>
      this.bases().find((b) => b.id === this.baseId())?.base?.undyed ?? { L: 60, a: 0, b: 0, ...this.under() },
  );
  private readonly swatch = computed(() => {
    const entry = this.entry();
    return !entry || entry.isEmpty() || entry.isBegun() ? null : entry.value();
  });
  /** Nothing until all three numbers stand: an empty master is empty. */
  protected readonly master = computed((): LabUnder | null => {
    const swatch = this.swatch();
    return swatch && { ...swatch.lab, ...this.under() };
  });
  protected readonly isBegun = computed(() => this.entry()?.isBegun() ?? false);
  protected readonly label = computed(() => {
    const master = this.master();
    return master ? describeColour(master) : $localize`Not known yet: the first lot that is liked becomes the master.`;
  });

  /** As a lot hands its colour over: “this is it”. */
  readonly version = input<string>();
  readonly base = input<string>();
  readonly lab = input<string>();
  /** As another colourway has it, which this one is to be like. */
  readonly within = input<string>();

  protected readonly given = computed((): Lab | null => {
    const [L, a, b] = (this.lab() ?? '').split(' ').map(Number);
    return L === undefined || a === undefined || b === undefined ? null : { L, a, b };
  });

  constructor() {
    effect(() => {
      this.recipeVersionId.set(this.version() ?? '');
      this.baseId.set(this.base() ?? '');
      const within = Number(this.within());
      if (within > 0) this.tolerance.set(within);
    });
  }

  protected readonly missing = computed(() => {
    if (this.name().trim() === '') return $localize`Give it a name.`;
    if (this.recipeVersionId() === '') return $localize`Choose the recipe.`;
    if (this.baseId() === '') return $localize`Choose the base.`;
    return this.isBegun() ? $localize`The master wants all of its numbers, or none.` : '';
  });

  protected keep(): void {
    const body = {
      id: this.id,
      name: this.name(),
      recipeVersionId: this.recipeVersionId(),
      baseMaterialId: this.baseId(),
      master: this.master(),
      masterTaken: this.swatch()?.taken ?? null,
      toleranceDeltaE: this.tolerance(),
      note: this.note(),
    };
    this.action.run(this.api.post('/api/colourways', body), ({ id }) => void this.router.navigate(['/colourways', id]));
  }
}
