import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { Material, MaterialFacts } from '@vestigia/contract';
import type { Hazard } from '@vestigia/core';
import { FASTNESS_WORDS, HAZARDS, HAZARD_WORDS, MATERIAL_FORMS, formatAmount, readAmount } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { RefusalNote } from '../../ui/refusal';

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
] as const;

/** What the studio knows of a material; everything may be changed, and whoever changes an old reading sees both. */
@Component({
  selector: 'vs-material-facts-form',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: ` <form (ngSubmit)="save()">
    <div class="fields">
      <mat-form-field><mat-label>Name</mat-label><input matInput name="name" [(ngModel)]="name" /></mat-form-field>
      @if (material().kind !== 'fibre') {
        <mat-form-field
          ><mat-label>Botanical name</mat-label
          ><input
            matInput
            name="botanical"
            [ngModel]="facts().botanicalName"
            (ngModelChange)="set({ botanicalName: $event })"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Plant part</mat-label
          ><input matInput name="part" [ngModel]="facts().plantPart" (ngModelChange)="set({ plantPart: $event })"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Not above, °C</mat-label
          ><input
            matInput
            type="number"
            min="0"
            max="110"
            name="ceiling"
            [ngModel]="facts().ceilingC"
            (ngModelChange)="set({ ceilingC: $event })"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Water it likes</mat-label
          ><select matNativeControl name="water" [ngModel]="facts().water" (ngModelChange)="set({ water: $event })">
            <option value="any">any</option>
            <option value="soft">soft</option>
            <option value="hard">hard</option>
          </select></mat-form-field
        >
        <mat-form-field
          ><mat-label>pH from</mat-label
          ><input
            matInput
            type="number"
            min="0"
            max="14"
            step="0.1"
            name="phLow"
            [ngModel]="facts().phLow"
            (ngModelChange)="set({ phLow: $event })"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>pH to</mat-label
          ><input
            matInput
            type="number"
            min="0"
            max="14"
            step="0.1"
            name="phHigh"
            [ngModel]="facts().phHigh"
            (ngModelChange)="set({ phHigh: $event })"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Fastness to light</mat-label
          ><select
            matNativeControl
            name="light"
            [ngModel]="facts().light ?? ''"
            (ngModelChange)="set({ light: $event || null })"
          >
            <option value="">not known</option>
            @for (f of fastness; track f) {
              <option [value]="f">{{ f }}</option>
            }
          </select></mat-form-field
        >
        <mat-form-field
          ><mat-label>Fastness to washing</mat-label
          ><select
            matNativeControl
            name="wash"
            [ngModel]="facts().wash ?? ''"
            (ngModelChange)="set({ wash: $event || null })"
          >
            <option value="">not known</option>
            @for (f of fastness; track f) {
              <option [value]="f">{{ f }}</option>
            }
          </select></mat-form-field
        >
        <mat-form-field
          ><mat-label>Gathered from</mat-label
          ><select
            matNativeControl
            name="from"
            [ngModel]="facts().season?.fromMonth ?? 0"
            (ngModelChange)="setMonth('fromMonth', +$event)"
          >
            <option [value]="0">not gathered</option>
            @for (m of months; track m; let i = $index) {
              <option [value]="i + 1">{{ m }}</option>
            }
          </select></mat-form-field
        >
        @if (facts().season; as s) {
          <mat-form-field
            ><mat-label>Gathered until</mat-label
            ><select matNativeControl name="to" [ngModel]="s.toMonth" (ngModelChange)="setMonth('toMonth', +$event)">
              @for (m of months; track m; let i = $index) {
                <option [value]="i + 1">{{ m }}</option>
              }
            </select></mat-form-field
          >
        }
      }
      <mat-form-field
        ><mat-label>Comes after ordering, days</mat-label
        ><input
          matInput
          type="number"
          min="0"
          max="730"
          name="lead"
          [ngModel]="facts().leadTimeDays"
          (ngModelChange)="set({ leadTimeDays: $event })"
          placeholder="taken as 14"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>Order when free falls to</mat-label
        ><input matInput name="point" [(ngModel)]="point" placeholder="worked out from use"
      /></mat-form-field>
      <mat-form-field
        ><mat-label>Order this much</mat-label
        ><input matInput name="quantity" [(ngModel)]="quantity" placeholder="half a year’s use"
      /></mat-form-field>
      <mat-form-field class="wide"
        ><mat-label>Note</mat-label><textarea matInput rows="2" name="note" [(ngModel)]="note"></textarea>
      </mat-form-field>
    </div>
    @if (material().kind !== 'fibre') {
      <fieldset>
        <legend>Forms</legend>
        @for (f of forms; track f) {
          <label class="tick"
            ><input type="checkbox" [checked]="facts().forms.includes(f)" (change)="toggleForm(f)" /> {{ f }}</label
          >
        }
      </fieldset>
      <fieldset>
        <legend>Suits</legend>
        @for (g of groups; track g) {
          <label class="tick"
            ><input type="checkbox" [checked]="facts().fibreGroups.includes(g)" (change)="toggleGroup(g)" />
            {{ g }} fibre</label
          >
        }
        <label class="tick"
          ><input
            type="checkbox"
            [checked]="facts().bringsTannin"
            (change)="set({ bringsTannin: !facts().bringsTannin })"
          />
          brings its own tannin</label
        >
      </fieldset>
    }
    @if (material().measure === 'pieces' && material().kind !== 'fibre') {
      <fieldset>
        <legend>One packet</legend>
        <div class="fields">
          <mat-form-field
            ><mat-label>holds, g</mat-label
            ><input
              matInput
              type="number"
              min="0.1"
              step="0.1"
              name="contents"
              [ngModel]="facts().packet?.contentsG ?? null"
              (ngModelChange)="setPacket({ contentsG: $event })"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>dyes this much dry fibre, g</mat-label
            ><input
              matInput
              type="number"
              min="1"
              name="fibreG"
              [ngModel]="facts().packet?.fibreG ?? null"
              (ngModelChange)="setPacket({ fibreG: $event })"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>goes with</mat-label
            ><select
              matNativeControl
              name="aux"
              [ngModel]="facts().packet?.auxiliaries?.[0]?.materialId ?? ''"
              (ngModelChange)="setAuxiliary({ materialId: $event })"
            >
              <option value="">nothing</option>
              @for (m of auxiliaries(); track m.id) {
                <option [value]="m.id">{{ m.name }}</option>
              }
            </select></mat-form-field
          >
          @if (facts().packet?.auxiliaries?.[0]; as a) {
            <mat-form-field
              ><mat-label>of it per packet, g or ml</mat-label
              ><input
                matInput
                type="number"
                min="0"
                step="0.1"
                name="auxAmount"
                [ngModel]="a.amount / 1000"
                (ngModelChange)="setAuxiliary({ amount: $event * 1000 })"
            /></mat-form-field>
          }
        </div>
      </fieldset>
    }
    <fieldset>
      <legend>What it can do to people</legend>
      @for (h of hazards; track h) {
        <label class="tick"
          ><input type="checkbox" [checked]="chosen().includes(h)" (change)="toggleHazard(h)" />
          {{ hazardWords[h] }}</label
        >
      }
    </fieldset>
    <vs-refusal [problem]="wrong() ?? saving.problem()" />
    @if (saving.problem()?.code === 'stale') {
      <p><button class="plain" type="button" (click)="takeTheirs()">Take what stands now</button></p>
    }
    <button class="act" type="submit" [disabled]="saving.busy()">Keep what is known</button>
  </form>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MaterialFactsForm {
  private readonly api = inject(ApiClient);
  readonly material = input.required<Material>();
  readonly saved = output();
  protected readonly saving = doing();
  protected readonly fastness = FASTNESS_WORDS;
  protected readonly forms = MATERIAL_FORMS;
  protected readonly groups = ['protein', 'cellulose'] as const;
  protected readonly hazards = HAZARDS;
  protected readonly hazardWords = HAZARD_WORDS;
  protected readonly months = MONTHS;
  private readonly materials = live(['stores'], () => this.api.get('/api/materials'));
  protected readonly auxiliaries = computed(() =>
    (this.materials.value() ?? []).filter((m) => m.kind !== 'fibre' && m.measure !== 'pieces'),
  );
  protected readonly name = linkedSignal(() => this.material().name);
  protected readonly note = linkedSignal(() => this.material().note);
  protected readonly facts = linkedSignal(() => this.material().facts);
  protected readonly chosen = linkedSignal<readonly Hazard[]>(() => this.material().hazards);
  protected readonly point = linkedSignal(() => this.write(this.material().facts.reorderPoint));
  protected readonly quantity = linkedSignal(() => this.write(this.material().facts.reorderQuantity));
  private readonly read = computed(() =>
    [this.point(), this.quantity()].map((text) =>
      text.trim() === '' ? null : readAmount(text, this.material().measure, { allowNothing: true }),
    ),
  );
  protected readonly wrong = computed(() => {
    const bad = this.read().find((r) => r !== null && !r.ok);
    return bad && !bad.ok ? { detail: `When to order, and how much: ${bad.sentence}` } : undefined;
  });

  private write(amount: number | null): string {
    return amount === null ? '' : formatAmount(amount, this.material().measure);
  }

  protected set(change: Partial<MaterialFacts>): void {
    this.facts.update((f) => ({ ...f, ...change }));
  }

  protected setMonth(which: 'fromMonth' | 'toMonth', month: number): void {
    const season = this.facts().season;
    this.set({
      season:
        month === 0
          ? null
          : { fromMonth: season?.fromMonth ?? month, toMonth: season?.toMonth ?? month, [which]: month },
    });
  }

  protected setPacket(change: { contentsG?: number; fibreG?: number }): void {
    this.set({ packet: { contentsG: 10, fibreG: 100, auxiliaries: [], ...this.facts().packet, ...change } });
  }

  protected setAuxiliary(change: { materialId?: string; amount?: number }): void {
    const packet = this.facts().packet ?? { contentsG: 10, fibreG: 100, auxiliaries: [] };
    const first = { materialId: '', amount: 0, ...packet.auxiliaries[0], ...change };
    this.set({ packet: { ...packet, auxiliaries: first.materialId === '' ? [] : [first] } });
  }

  protected toggleForm(form: (typeof MATERIAL_FORMS)[number]): void {
    this.set({ forms: toggled(this.facts().forms, form) });
  }

  protected toggleGroup(group: 'protein' | 'cellulose'): void {
    this.set({ fibreGroups: toggled(this.facts().fibreGroups, group) });
  }

  protected toggleHazard(hazard: Hazard): void {
    this.chosen.update((now) => toggled(now, hazard));
  }

  protected takeTheirs(): void {
    this.saving.clear();
    this.saved.emit();
  }

  protected save(): void {
    if (this.wrong()) return;
    const [point, quantity] = this.read().map((r) => (r?.ok ? r.amount : null));
    const { kind, measure, base, version } = this.material();
    const facts = { ...this.facts(), reorderPoint: point ?? null, reorderQuantity: quantity ?? null };
    this.saving.run(
      this.api.put(
        '/api/materials/{id}',
        { version, name: this.name(), kind, measure, base, hazards: [...this.chosen()], note: this.note(), facts },
        this.material().id,
      ),
      () => this.saved.emit(),
    );
  }
}

const toggled = <T>(list: readonly T[], value: T): T[] =>
  list.includes(value) ? list.filter((v) => v !== value) : [...list, value];
