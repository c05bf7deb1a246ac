import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { Studio, StudioHeatSource, StudioVessel } from '@vestigia/contract';
import { VESSEL_METALS } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';

type VesselDraft = Omit<StudioVessel, 'version' | 'workingMl'> & { version?: number; litres: number | null };
type HeatDraft = Omit<StudioHeatSource, 'version' | 'powerW' | 'efficiencyPercent'> & {
  version?: number;
  powerW: number | null;
  efficiencyPercent: number | null;
};

/** The pots with their burners, and what each pot has held. */
@Component({
  selector: 'vs-vessels',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: ` @let s = studio();
    <h2>Pots and vessels</h2>
    <div class="scroller">
      <table class="ledger">
        <thead>
          <tr>
            <th>Vessel</th>
            <th>Metal</th>
            <th class="number">Working volume</th>
            <th class="number">Empty</th>
            <th>Heated by</th>
            <th>Note</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          @for (v of s.vessels; track v.id) {
            <tr>
              <td>
                {{ v.name }}
                @if (v.heldIron) {
                  <span class="state">held iron</span>
                }
              </td>
              <td>{{ v.metal }}</td>
              <td class="number">{{ v.workingMl / 1000 }} l</td>
              <td class="number">{{ v.emptyG === null ? '–' : v.emptyG / 1000 + ' kg' }}</td>
              <td>{{ heatName(v.heatSourceId) }}</td>
              <td class="small">{{ v.note }}</td>
              <td>
                <button class="plain" type="button" (click)="edit(v)" [attr.aria-label]="'Change ' + v.name">
                  Change
                </button>
              </td>
            </tr>
          } @empty {
            <tr>
              <td colspan="7">None yet. A lot is split over the pots there are: add the first.</td>
            </tr>
          }
        </tbody>
      </table>
    </div>
    @if (vessel(); as d) {
      <form (ngSubmit)="keepVessel(d)">
        <div class="fields">
          <mat-form-field
            ><mat-label>Name</mat-label><input matInput name="vname" [(ngModel)]="d.name"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Metal</mat-label
            ><select matNativeControl name="metal" [(ngModel)]="d.metal">
              @for (m of metals; track m) {
                <option [value]="m">{{ m }}</option>
              }
            </select></mat-form-field
          >
          <mat-form-field
            ><mat-label>Filled with room to turn, litres</mat-label
            ><input matInput type="number" step="any" name="litres" [(ngModel)]="d.litres"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Weight empty, g</mat-label
            ><input matInput type="number" step="any" name="empty" [(ngModel)]="d.emptyG"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Hottest it takes, °C</mat-label
            ><input matInput type="number" name="most" [(ngModel)]="d.mostC" placeholder="as its material"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Heated by</mat-label
            ><select
              matNativeControl
              name="heat"
              [ngModel]="d.heatSourceId ?? ''"
              (ngModelChange)="d.heatSourceId = $event || null"
            >
              <option value="">nothing</option>
              @for (h of s.heatSources; track h.id) {
                <option [value]="h.id">{{ h.name }}</option>
              }
            </select></mat-form-field
          >
          <mat-form-field class="wide"
            ><mat-label>Note: what it once held</mat-label><input matInput name="vnote" [(ngModel)]="d.note"
          /></mat-form-field>
        </div>
        <label class="tick"
          ><input type="checkbox" name="iron" [(ngModel)]="d.heldIron" /> it has held iron, or is of it: it saddens what
          is dyed in it</label
        >
        <vs-refusal [problem]="action.problem()" />
        <div class="actions">
          <button class="act main" type="submit" [disabled]="action.busy()">Keep the vessel</button>
          @if (d.version !== undefined) {
            <button class="act" type="button" [disabled]="action.busy()" (click)="remove(d)">
              It is gone from the studio
            </button>
          }
          <button class="plain" type="button" (click)="vessel.set(undefined); action.clear()">Leave it</button>
        </div>
      </form>
    } @else {
      <button class="act" type="button" (click)="vessel.set(newVessel())">Add a vessel</button>
    }

    <h2>Burners and plates</h2>
    <table class="ledger heat">
      <thead>
        <tr>
          <th>Heat source</th>
          <th class="number">Power</th>
          <th class="number">Into the pot</th>
          <th>Note</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        @for (h of s.heatSources; track h.id) {
          <tr>
            <td>{{ h.name }}</td>
            <td class="number">{{ h.powerW }} W</td>
            <td class="number">{{ h.efficiencyPercent }} %</td>
            <td class="small">{{ h.note }}</td>
            <td>
              <button
                class="plain"
                type="button"
                (click)="
                  heat.set({
                    id: h.id,
                    version: h.version,
                    name: h.name,
                    powerW: h.powerW,
                    efficiencyPercent: h.efficiencyPercent,
                    note: h.note,
                  })
                "
                [attr.aria-label]="'Change ' + h.name"
              >
                Change
              </button>
            </td>
          </tr>
        } @empty {
          <tr>
            <td colspan="5">None yet. With its power, the time to heat a bath is worked out.</td>
          </tr>
        }
      </tbody>
    </table>
    @if (heat(); as d) {
      <form (ngSubmit)="keepHeat(d)">
        <div class="fields">
          <mat-form-field
            ><mat-label>Name of the heat source</mat-label><input matInput name="hname" [(ngModel)]="d.name"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Power, W</mat-label><input matInput type="number" name="power" [(ngModel)]="d.powerW"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Of it into the pot, %</mat-label
            ><input matInput type="number" name="share" [(ngModel)]="d.efficiencyPercent"
          /></mat-form-field>
          <mat-form-field class="wide"
            ><mat-label>Note on it</mat-label><input matInput name="hnote" [(ngModel)]="d.note"
          /></mat-form-field>
        </div>
        <p class="small">
          About 40 to 50 % with gas, 60 to 70 % on a plate, 85 % by induction; time one pot of water to know.
        </p>
        <vs-refusal [problem]="heating.problem()" />
        <div class="actions">
          <button class="act main" type="submit" [disabled]="heating.busy()">Keep the heat source</button
          ><button class="plain" type="button" (click)="heat.set(undefined); heating.clear()">Leave it</button>
        </div>
      </form>
    } @else {
      <button
        class="act"
        type="button"
        (click)="heat.set({ id: id(), name: '', powerW: null, efficiencyPercent: 50, note: '' })"
      >
        Add a heat source
      </button>
    }`,
  styles: `
    .heat {
      max-width: 46rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Vessels {
  private readonly api = inject(ApiClient);
  readonly studio = input.required<Studio>();
  readonly changed = output();
  protected readonly metals = VESSEL_METALS;
  protected readonly id = newId;
  protected readonly action = doing();
  protected readonly heating = doing();
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
    mostC: null,
    heatSourceId: null,
  });
  protected readonly heatName = (id: string | null): string =>
    this.studio().heatSources.find((h) => h.id === id)?.name ?? '–';

  protected edit({ workingMl, ...v }: StudioVessel): void {
    this.vessel.set({ ...v, litres: workingMl / 1000 });
  }

  protected keepVessel({ litres, version, id, ...fields }: VesselDraft): void {
    const body = { ...fields, workingMl: (litres ?? 0) * 1000 };
    this.action.run(
      version === undefined
        ? this.api.post('/api/vessels', { id, ...body })
        : this.api.put('/api/vessels/{id}', { version, ...body }, id),
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
        : this.api.put('/api/heat-sources/{id}', { version, ...body }, id),
      () => {
        this.heat.set(undefined);
        this.changed.emit();
      },
    );
  }
}
