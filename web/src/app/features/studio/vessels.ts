import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { Studio, StudioHeatSource, StudioVessel } from '@vestigia/contract';
import { VESSEL_METALS } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { openedOn, readAnewWhenStale } from '../../api/opened-on';
import { pageAction } from '../../api/page-action';
import { newId } from '../../api/new-id';
import { Meanwhile } from '../../ui/meanwhile';
import { Notes } from '../../ui/notes';
import { RefusalNote } from '../../ui/refusal';
import { NumberField } from '../../ui/number-field';
import { DeedsOf } from '../../ui/deeds-of';
import { May } from '../../ui/may';
import { ScrollRegion } from '../../ui/scroll-region';
import { ActBar } from '../../ui/act-bar';
import { DraftOf } from '../../ui/draft';
import { InDegrees } from '../../ui/degrees';
import { Kept } from '../../ui/kept';
import { Decimals } from '../../ui/decimals';
import { Amount } from '../../format/amount';
import { Said } from '../../ui/said';

type VesselDraft = Omit<StudioVessel, 'version' | 'workingMl'> & { version?: number; litres: number | null };
type HeatDraft = Omit<StudioHeatSource, 'version' | 'powerW' | 'efficiencyPercent'> & {
  version?: number;
  powerW: number | null;
  efficiencyPercent: number | null;
};

/** The pots with their burners, and what each pot has held. */
@Component({
  selector: 'vs-vessels',
  imports: [
    Said,
    Amount,
    Decimals,
    Kept,
    InDegrees,
    DraftOf,
    ActBar,
    ScrollRegion,
    May,
    DeedsOf,
    NumberField,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    Meanwhile,
    Notes,
    RefusalNote,
  ],
  templateUrl: './vessels.html',
  styles: `
    .heat {
      max-width: 46rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Vessels {
  /** What its template says by what holds. */
  protected readonly says = {
    change: (name: string | number): string => $localize`Change ${name}`,
    hottestItTakes: $localize`Hottest it takes`,
  };

  private readonly api = inject(ApiClient);
  readonly studio = input.required<Studio>();
  readonly changed = output();
  protected readonly metals = VESSEL_METALS;
  protected readonly id = newId;
  protected readonly action = pageAction();
  protected readonly heating = pageAction();
  protected readonly vessel = signal<VesselDraft | undefined>(undefined);
  protected readonly heat = signal<HeatDraft | undefined>(undefined);
  protected readonly newVessel = (): VesselDraft => ({
    id: newId(),
    name: '',
    metal: 'stainless',
    litres: 10,
    note: '',
    heldIron: false,
    emptyG: null,
    maxC: null,
    heatSourceId: null,
  });
  protected readonly heatName = (id: string | null): string =>
    this.studio().heatSources.find((h) => h.id === id)?.name ?? '–';

  protected readonly opened = openedOn(() => this.studio().vessels.find((v) => v.id === this.vessel()?.id), {
    key: (v) => v.id,
    version: (v) => v.version,
    say: (v) => ({
      name: v.name,
      metal: v.metal,
      litres: String(v.workingMl / 1000),
      'weight empty, g': String(v.emptyG ?? ''),
      'hottest it takes, °C': String(v.maxC ?? ''),
      'heated by': this.heatName(v.heatSourceId),
      'has held iron': v.heldIron ? 'yes' : 'no',
      note: v.note,
    }),
  });
  protected readonly openedHeat = openedOn(() => this.studio().heatSources.find((h) => h.id === this.heat()?.id), {
    key: (h) => h.id,
    version: (h) => h.version,
    say: ({ name, powerW, efficiencyPercent, note }) => ({
      name,
      'power, W': String(powerW),
      'into the pot, %': String(efficiencyPercent),
      note,
    }),
  });

  constructor() {
    readAnewWhenStale(this.action, () => this.changed.emit());
    readAnewWhenStale(this.heating, () => this.changed.emit());
  }

  protected edit({ workingMl, ...v }: StudioVessel): void {
    this.vessel.set({ ...v, litres: workingMl / 1000 });
    this.opened.take();
    this.opened.touch();
  }

  protected editHeat(h: StudioHeatSource): void {
    this.heat.set({ ...h });
    this.openedHeat.take();
    this.openedHeat.touch();
  }

  /** Somebody else saved the pot meanwhile: theirs is opened anew, or one's own goes on. */
  protected chose(which: 'theirs' | 'mine'): void {
    const now = this.opened.value();
    if (which === 'theirs' && now) this.edit(now);
    this.action.clear();
  }

  protected choseHeat(which: 'theirs' | 'mine'): void {
    const now = this.openedHeat.value();
    if (which === 'theirs' && now) this.editHeat(now);
    this.heating.clear();
  }

  protected keepVessel({ litres, version, id, ...fields }: VesselDraft): void {
    const body = { ...fields, workingMl: (litres ?? 0) * 1000 };
    this.action.run(
      version === undefined
        ? this.api.post('/api/vessels', { id, ...body })
        : this.api.put('/api/vessels/{id}', { ...body, version: this.opened.version() }, id),
      () => {
        this.vessel.set(undefined);
        this.changed.emit();
      },
    );
  }

  protected remove({ id }: VesselDraft): void {
    this.action.run(this.api.delete('/api/vessels/{id}', id), () => {
      this.vessel.set(undefined);
      this.changed.emit();
    });
  }

  protected keepHeat({ version, id, ...fields }: HeatDraft): void {
    const body = { ...fields, powerW: fields.powerW as number, efficiencyPercent: fields.efficiencyPercent as number };
    this.heating.run(
      version === undefined
        ? this.api.post('/api/heat-sources', { id, ...body })
        : this.api.put('/api/heat-sources/{id}', { ...body, version: this.openedHeat.version() }, id),
      () => {
        this.heat.set(undefined);
        this.changed.emit();
      },
    );
  }
}
