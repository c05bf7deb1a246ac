import { ChangeDetectionStrategy, Component, inject, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { Studio, WaterSource } from '@vestigia/contract';
import type { HardnessUnit } from '@vestigia/core';
import {
  HARDNESS_UNITS,
  HARDNESS_UNIT_WORDS,
  VOLUME_SYSTEMS,
  VOLUME_SYSTEM_WORDS,
  convertHardness,
} from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import type { Settings } from './settings';
import { settingsOf } from './settings';
import { Vessels } from './vessels';

/** Hardness as it stands on the test strip or the bill, in whichever unit. */
type WaterDraft = Omit<WaterSource, 'version' | 'hardnessDh'> & {
  version?: number;
  hardness: number | null;
  unit: HardnessUnit;
};

/** The house: its people, pots, waters and balance, and the whole of it as one file. */
@Component({
  selector: 'vs-studio',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, Vessels],
  template: ` <vs-refusal [problem]="studio.problem()" />
    @if (studio.value(); as s) {
      <div class="head">
        <h1>{{ s.name }}</h1>
        <div class="actions"><a class="act" routerLink="/studio/practice">House practice</a></div>
      </div>
      <vs-vessels [studio]="s" (changed)="studio.reload()" />

      <h2>Waters</h2>
      <table class="ledger">
        <thead>
          <tr>
            <th>Water</th>
            <th class="number">pH</th>
            <th class="number">Hardness</th>
            <th class="number">Iron</th>
            <th>Note</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          @for (w of s.waters; track w.id) {
            <tr>
              <td>{{ w.name }}</td>
              <td class="number">{{ w.ph ?? '–' }}</td>
              <td class="number">
                {{ w.hardnessDh === null ? '–' : w.hardnessDh + ' °dH, ' + ppm(w.hardnessDh) + ' ppm' }}
              </td>
              <td class="number">{{ w.ironMgPerL === null ? '–' : w.ironMgPerL + ' mg/l' }}</td>
              <td class="small">{{ w.note }}</td>
              <td>
                <button
                  class="plain"
                  type="button"
                  (click)="
                    water.set({
                      id: w.id,
                      version: w.version,
                      name: w.name,
                      ph: w.ph,
                      hardness: w.hardnessDh,
                      unit: 'dh',
                      ironMgPerL: w.ironMgPerL,
                      note: w.note,
                    })
                  "
                  [attr.aria-label]="'Change ' + w.name"
                >
                  Change
                </button>
              </td>
            </tr>
          } @empty {
            <tr>
              <td colspan="6">None yet. Which tap it came from changes the shade.</td>
            </tr>
          }
        </tbody>
      </table>
      @if (water(); as d) {
        <form (ngSubmit)="keepWater(d)">
          <div class="fields">
            <mat-form-field
              ><mat-label>Name</mat-label><input matInput name="wname" [(ngModel)]="d.name"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>pH</mat-label><input matInput type="number" step="0.1" name="ph" [(ngModel)]="d.ph"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>Hardness</mat-label
              ><input matInput type="number" step="any" name="hardness" [(ngModel)]="d.hardness"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>in</mat-label
              ><select matNativeControl name="hunit" [(ngModel)]="d.unit">
                @for (u of hardnessUnits; track u) {
                  <option [value]="u">{{ hardnessWords[u] }}</option>
                }
              </select></mat-form-field
            >
            <mat-form-field
              ><mat-label>Iron, mg/l</mat-label
              ><input matInput type="number" step="any" name="iron" [(ngModel)]="d.ironMgPerL"
            /></mat-form-field>
            <mat-form-field class="wide"
              ><mat-label>Note</mat-label><input matInput name="wnote" [(ngModel)]="d.note"
            /></mat-form-field>
          </div>
          <vs-refusal [problem]="action.problem()" />
          <div class="actions">
            <button class="act main" type="submit" [disabled]="action.busy()">Keep the water</button
            ><button class="plain" type="button" (click)="water.set(undefined); action.clear()">Leave it</button>
          </div>
        </form>
      } @else {
        <button
          class="act"
          type="button"
          (click)="
            water.set({ id: newId(), name: '', ph: null, hardness: null, unit: 'dh', ironMgPerL: null, note: '' })
          "
        >
          Add a water
        </button>
      }

      <h2>People</h2>
      <p>{{ peopleWords(s) }}</p>
      <form (ngSubmit)="addPerson()">
        <div class="fields">
          <mat-form-field
            ><mat-label>Name</mat-label><input matInput name="pname" autocomplete="off" [(ngModel)]="personName"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Passphrase</mat-label
            ><input matInput type="password" name="ppass" autocomplete="new-password" [(ngModel)]="passphrase"
          /></mat-form-field>
          <div><button class="act" type="submit" [disabled]="person.busy()">Add this person</button></div>
        </div>
        <vs-refusal [problem]="person.problem()" />
      </form>

      <h2>The balance, the spoons and the door</h2>
      <form (ngSubmit)="keepSettings()">
        <div class="fields">
          <mat-form-field
            ><mat-label>The studio’s name</mat-label><input matInput name="sname" [(ngModel)]="settings().name"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Time zone</mat-label><input matInput name="zone" [(ngModel)]="settings().zone"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>The balance</mat-label><input matInput name="bname" [(ngModel)]="settings().balanceName"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>shows steps of, g</mat-label
            ><input matInput type="number" step="any" name="bstep" [(ngModel)]="settings().balanceResolutionG"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>and carries, g</mat-label
            ><input matInput type="number" step="any" name="bcap" [(ngModel)]="settings().balanceCapacityG"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>A spoon, cup or gallon here is</mat-label
            ><select
              matNativeControl
              name="system"
              [ngModel]="settings().volumeSystem ?? ''"
              (ngModelChange)="settings().volumeSystem = $event || null"
            >
              <option value="">asked each time</option>
              @for (v of systems; track v) {
                <option [value]="v">{{ systemWords[v] }}</option>
              }
            </select></mat-form-field
          >
          <mat-form-field
            ><mat-label>Currency</mat-label
            ><input matInput name="currency" maxlength="3" [(ngModel)]="settings().currency"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>The room, °C</mat-label
            ><input matInput type="number" step="any" name="room" [(ngModel)]="settings().roomC"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Cold water comes at, °C</mat-label
            ><input matInput type="number" step="any" name="cold" [(ngModel)]="settings().coldWaterC"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Hot water comes at, °C</mat-label
            ><input matInput type="number" step="any" name="hot" [(ngModel)]="settings().hotWaterC"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>One person lifts, kg</mat-label
            ><input matInput type="number" step="any" name="lift" [(ngModel)]="settings().liftLimitKg"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>A kilowatt hour costs, {{ settings().currency }} hundredths</mat-label
            ><input matInput type="number" step="any" name="kwh" [(ngModel)]="settings().energyMinorPerKwh"
          /></mat-form-field>
          <mat-form-field class="wide"
            ><mat-label>Note on the door, for anyone to read</mat-label
            ><input matInput name="door" [(ngModel)]="settings().signInNote"
          /></mat-form-field>
        </div>
        <vs-refusal [problem]="saving.problem()" />
        @if (saving.problem()?.code === 'stale') {
          <button class="plain" type="button" (click)="studio.reload(); saving.clear()">Take theirs</button>
        }
        <button class="act" type="submit" [disabled]="saving.busy()">Keep these</button>
      </form>

      <h2>The whole studio as one file</h2>
      <p>
        Everything ever recorded, in an open format, for keeping elsewhere or for moving to another machine. Passphrases
        stay behind.
      </p>
      <a class="act" href="/api/document" download="studio.json">Write the studio file</a>
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StudioPage {
  private readonly api = inject(ApiClient);
  protected readonly hardnessUnits = HARDNESS_UNITS;
  protected readonly hardnessWords = HARDNESS_UNIT_WORDS;
  protected readonly ppm = (dh: number): number => Math.round(convertHardness(dh, 'dh', 'ppm'));
  protected readonly systems = VOLUME_SYSTEMS;
  protected readonly systemWords = VOLUME_SYSTEM_WORDS;
  protected readonly newId = newId;
  protected readonly studio = live(['studio'], () => this.api.get('/api/studio'));
  protected readonly action = doing();
  protected readonly person = doing();
  protected readonly saving = doing();
  protected readonly water = signal<WaterDraft | undefined>(undefined);
  protected readonly personName = signal('');
  protected readonly passphrase = signal('');
  protected readonly settings = linkedSignal((): Settings => {
    const s = this.studio.value();
    return s ? settingsOf(s) : ({} as Settings);
  });
  private personId = newId();

  protected keepWater({ version, id, hardness, unit, ...rest }: WaterDraft): void {
    const d = { ...rest, hardnessDh: hardness === null ? null : convertHardness(Math.max(0, hardness), unit, 'dh') };
    const sent =
      version === undefined
        ? this.api.post('/api/waters', { id, ...d })
        : this.api.put('/api/waters/{id}', { version, ...d }, id);
    this.action.run(sent, () => {
      this.water.set(undefined);
      this.studio.reload();
    });
  }

  protected addPerson(): void {
    this.person.run(
      this.api.post('/api/people', { id: this.personId, name: this.personName(), passphrase: this.passphrase() }),
      () => {
        this.personId = newId();
        this.personName.set('');
        this.passphrase.set('');
        this.studio.reload();
      },
    );
  }

  protected keepSettings(): void {
    this.saving.run(this.api.put('/api/studio', this.settings()), () => this.studio.reload());
  }

  protected peopleWords(s: Studio): string {
    return s.people.map((p) => p.name).join(', ');
  }
}
