import { ChangeDetectionStrategy, Component, inject, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { Studio, StudioVessel, WaterSource } from '@vestigia/contract';
import { VESSEL_METALS, VOLUME_SYSTEMS, VOLUME_SYSTEM_WORDS } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';

type VesselDraft = Omit<StudioVessel, 'version' | 'workingMl'> & { version?: number; litres: number };
type WaterDraft = Omit<WaterSource, 'version'> & { version?: number };

/** The house: its people, pots, waters and balance, and the whole of it as one file. */
@Component({
  selector: 'vs-studio',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: `
    <vs-refusal [problem]="studio.problem()" />
    @if (studio.value(); as s) {
      <div class="head"><h1>{{ s.name }}</h1></div>
      <h2>Pots and vessels</h2>
      <table class="ledger"><thead><tr><th>Vessel</th><th>Metal</th><th class="number">Working volume</th><th>Note</th><th></th></tr></thead><tbody>
        @for (v of s.vessels; track v.id) { <tr><td>{{ v.name }}</td><td>{{ v.metal }}</td><td class="number">{{ v.workingMl / 1000 }} l</td><td class="small">{{ v.note }}</td><td><button class="plain" type="button" (click)="vessel.set({ id: v.id, version: v.version, name: v.name, metal: v.metal, litres: v.workingMl / 1000, note: v.note })" [attr.aria-label]="'Change ' + v.name">Change</button></td></tr> }
        @empty { <tr><td colspan="5">None yet. A lot is split over the pots there are: add the first.</td></tr> }
      </tbody></table>
      @if (vessel(); as d) {
        <form (ngSubmit)="keepVessel(d)"><div class="fields">
          <mat-form-field><mat-label>Name</mat-label><input matInput name="vname" [(ngModel)]="d.name"></mat-form-field>
          <mat-form-field><mat-label>Metal</mat-label><select matNativeControl name="metal" [(ngModel)]="d.metal">@for (m of metals; track m) { <option [value]="m">{{ m }}</option> }</select></mat-form-field>
          <mat-form-field><mat-label>Filled with room to turn, litres</mat-label><input matInput type="number" step="any" name="litres" [(ngModel)]="d.litres"></mat-form-field>
          <mat-form-field class="wide"><mat-label>Note: what it once held</mat-label><input matInput name="vnote" [(ngModel)]="d.note"></mat-form-field>
        </div><vs-refusal [problem]="action.problem()" /><div class="actions"><button class="act main" type="submit" [disabled]="action.busy()">Keep the vessel</button><button class="plain" type="button" (click)="vessel.set(undefined); action.clear()">Leave it</button></div></form>
      } @else { <button class="act" type="button" (click)="vessel.set({ id: newId(), name: '', metal: 'stainless', litres: 10, note: '' })">Add a vessel</button> }

      <h2>Waters</h2>
      <table class="ledger"><thead><tr><th>Water</th><th class="number">pH</th><th class="number">Hardness</th><th>Note</th><th></th></tr></thead><tbody>
        @for (w of s.waters; track w.id) { <tr><td>{{ w.name }}</td><td class="number">{{ w.ph ?? '–' }}</td><td class="number">{{ w.hardnessDh === null ? '–' : w.hardnessDh + ' °dH' }}</td><td class="small">{{ w.note }}</td><td><button class="plain" type="button" (click)="water.set({ id: w.id, version: w.version, name: w.name, ph: w.ph, hardnessDh: w.hardnessDh, note: w.note })" [attr.aria-label]="'Change ' + w.name">Change</button></td></tr> }
        @empty { <tr><td colspan="5">None yet. Which tap it came from changes the shade.</td></tr> }
      </tbody></table>
      @if (water(); as d) {
        <form (ngSubmit)="keepWater(d)"><div class="fields">
          <mat-form-field><mat-label>Name</mat-label><input matInput name="wname" [(ngModel)]="d.name"></mat-form-field>
          <mat-form-field><mat-label>pH</mat-label><input matInput type="number" step="0.1" name="ph" [(ngModel)]="d.ph"></mat-form-field>
          <mat-form-field><mat-label>Hardness, °dH</mat-label><input matInput type="number" step="0.1" name="hardness" [(ngModel)]="d.hardnessDh"></mat-form-field>
          <mat-form-field class="wide"><mat-label>Note</mat-label><input matInput name="wnote" [(ngModel)]="d.note"></mat-form-field>
        </div><vs-refusal [problem]="action.problem()" /><div class="actions"><button class="act main" type="submit" [disabled]="action.busy()">Keep the water</button><button class="plain" type="button" (click)="water.set(undefined); action.clear()">Leave it</button></div></form>
      } @else { <button class="act" type="button" (click)="water.set({ id: newId(), name: '', ph: null, hardnessDh: null, note: '' })">Add a water</button> }

      <h2>People</h2>
      <p>{{ peopleWords(s) }}</p>
      <form (ngSubmit)="addPerson()"><div class="fields">
        <mat-form-field><mat-label>Name</mat-label><input matInput name="pname" autocomplete="off" [(ngModel)]="personName"></mat-form-field>
        <mat-form-field><mat-label>Passphrase</mat-label><input matInput type="password" name="ppass" autocomplete="new-password" [(ngModel)]="passphrase"></mat-form-field>
        <div><button class="act" type="submit" [disabled]="person.busy()">Add this person</button></div>
      </div><vs-refusal [problem]="person.problem()" /></form>

      <h2>The balance, the spoons and the door</h2>
      <form (ngSubmit)="keepSettings()"><div class="fields">
        <mat-form-field><mat-label>The studio’s name</mat-label><input matInput name="sname" [(ngModel)]="settings().name"></mat-form-field>
        <mat-form-field><mat-label>Time zone</mat-label><input matInput name="zone" [(ngModel)]="settings().zone"></mat-form-field>
        <mat-form-field><mat-label>The balance</mat-label><input matInput name="bname" [(ngModel)]="settings().balanceName"></mat-form-field>
        <mat-form-field><mat-label>shows steps of, g</mat-label><input matInput type="number" step="any" name="bstep" [(ngModel)]="settings().balanceResolutionG"></mat-form-field>
        <mat-form-field><mat-label>and carries, g</mat-label><input matInput type="number" step="any" name="bcap" [(ngModel)]="settings().balanceCapacityG"></mat-form-field>
        <mat-form-field><mat-label>A spoon, cup or gallon here is</mat-label><select matNativeControl name="system" [ngModel]="settings().volumeSystem ?? ''" (ngModelChange)="settings().volumeSystem = $event || null"><option value="">asked each time</option>@for (v of systems; track v) { <option [value]="v">{{ systemWords[v] }}</option> }</select></mat-form-field>
        <mat-form-field><mat-label>Currency</mat-label><input matInput name="currency" maxlength="3" [(ngModel)]="settings().currency"></mat-form-field>
        <mat-form-field class="wide"><mat-label>Note on the door, for anyone to read</mat-label><input matInput name="door" [(ngModel)]="settings().signInNote"></mat-form-field>
      </div><vs-refusal [problem]="saving.problem()" />
        @if (saving.problem()?.code === 'stale') { <button class="plain" type="button" (click)="studio.reload(); saving.clear()">Take theirs</button> }
        <button class="act" type="submit" [disabled]="saving.busy()">Keep these</button></form>

      <h2>The whole studio as one file</h2>
      <p>Everything ever recorded, in an open format, for keeping elsewhere or for moving to another machine. Passphrases stay behind.</p>
      <a class="act" href="/api/document" download="studio.json">Write the studio file</a>
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StudioPage {
  private readonly api = inject(ApiClient);
  protected readonly metals = VESSEL_METALS;
  protected readonly systems = VOLUME_SYSTEMS;
  protected readonly systemWords = VOLUME_SYSTEM_WORDS;
  protected readonly newId = newId;
  protected readonly studio = live(['studio'], () => this.api.get('/api/studio'));
  protected readonly action = doing();
  protected readonly person = doing();
  protected readonly saving = doing();
  protected readonly vessel = signal<VesselDraft | undefined>(undefined);
  protected readonly water = signal<WaterDraft | undefined>(undefined);
  protected readonly personName = signal('');
  protected readonly passphrase = signal('');
  protected readonly settings = linkedSignal(() => settingsOf(this.studio.value()));
  private personId = newId();

  protected keepVessel({ litres, version, ...d }: VesselDraft): void {
    const body = { name: d.name, metal: d.metal, note: d.note, workingMl: (litres ?? 0) * 1000 };
    const sent = version === undefined ? this.api.post('/api/vessels', { id: d.id, ...body }) : this.api.put('/api/vessels/{id}', { version, ...body }, d.id);
    this.action.run(sent, () => { this.vessel.set(undefined); this.studio.reload(); });
  }

  protected keepWater({ version, id, ...d }: WaterDraft): void {
    const sent = version === undefined ? this.api.post('/api/waters', { id, ...d }) : this.api.put('/api/waters/{id}', { version, ...d }, id);
    this.action.run(sent, () => { this.water.set(undefined); this.studio.reload(); });
  }

  protected addPerson(): void {
    this.person.run(this.api.post('/api/people', { id: this.personId, name: this.personName(), passphrase: this.passphrase() }), () => {
      this.personId = newId();
      this.personName.set('');
      this.passphrase.set('');
      this.studio.reload();
    });
  }

  protected keepSettings(): void {
    this.saving.run(this.api.put('/api/studio', this.settings()), () => this.studio.reload());
  }

  protected peopleWords(s: Studio): string {
    return s.people.map((p) => p.name).join(', ');
  }
}

function settingsOf(s: Studio | undefined) {
  return { version: s?.version ?? 1, name: s?.name ?? '', zone: s?.zone ?? '', signInNote: s?.signInNote ?? '', balanceName: s?.balanceName ?? '', balanceResolutionG: Number((s?.balanceResolutionG ?? 0.1).toPrecision(6)), balanceCapacityG: s?.balanceCapacityG ?? 3000, volumeSystem: s?.volumeSystem ?? null, currency: s?.currency ?? 'EUR' };
}
