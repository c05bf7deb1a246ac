import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, input, model, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { ListedMaterial } from '@vestigia/contract';
import type { PlacedPlan, PlacedZone } from '@vestigia/core';
import { ZONE_WAYS, ZONE_WORDS, findPlacedFault, layOutPlaced } from '@vestigia/core';
import { PlacedPicture } from '../../ui/placed-picture';
import { moveEdge } from './zone-edges';

const NEW_ZONE: PlacedZone = {
  title: '',
  way: 'dip',
  fromPercent: 0,
  toPercent: 25,
  order: 1,
  minutes: 30,
  waitMin: 0,
  mlPerPiece: null,
  gPerPiece: null,
  materialId: null,
  spacingCm: null,
};

/** Placed colour on one piece: zones drawn along it. Their edges are dragged, moved by the arrow keys, or typed. */
@Component({
  selector: 'vs-placed-editor',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, PlacedPicture],
  template: ` @if (plan(); as p) {
      <div class="fields">
        <mat-form-field
          ><mat-label>The piece is</mat-label
          ><select matNativeControl name="piece" [ngModel]="p.piece" (ngModelChange)="change({ piece: $event })">
            <option value="skein">a skein, laid flat</option>
            <option value="length">a length of cloth</option>
          </select></mat-form-field
        >
        <mat-form-field
          ><mat-label>Its length, cm</mat-label
          ><input
            matInput
            type="number"
            step="any"
            name="length"
            [ngModel]="p.lengthCm"
            (ngModelChange)="change({ lengthCm: $event })"
        /></mat-form-field>
        <mat-form-field
          ><mat-label>Bleed margin, %</mat-label
          ><input
            matInput
            type="number"
            step="any"
            name="bleed"
            [ngModel]="p.bleedPercent"
            (ngModelChange)="change({ bleedPercent: $event })"
        /></mat-form-field>
      </div>
      <div class="strip" #strip>
        <vs-placed-picture [plan]="p" />
        @for (edge of edges(); track edge.id) {
          <button
            type="button"
            class="edge"
            role="slider"
            [style.left.%]="edge.left"
            [style.top.px]="edge.top"
            [attr.aria-label]="edge.label"
            [attr.aria-valuenow]="edge.percent"
            aria-valuemin="0"
            aria-valuemax="100"
            (pointerdown)="grab($event, edge.zone, edge.side)"
            (keydown)="nudge($event, edge.zone, edge.side)"
          ></button>
        }
      </div>
      @if (fault(); as f) {
        <p class="refusal" role="alert">{{ f.sentence }}</p>
      }
      @for (line of cautions(); track line) {
        <p>{{ line }}</p>
      }
      @for (z of p.zones; track $index; let i = $index) {
        <fieldset>
          <legend>{{ z.title || 'Zone ' + (i + 1) }}</legend>
          <div class="fields">
            <mat-form-field
              ><mat-label>Zone</mat-label
              ><input matInput [name]="'zt' + i" [ngModel]="z.title" (ngModelChange)="zone(i, { title: $event })"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>How</mat-label
              ><select matNativeControl [name]="'zw' + i" [ngModel]="z.way" (ngModelChange)="zone(i, { way: $event })">
                @for (w of ways; track w) {
                  <option [value]="w">{{ words[w] }}</option>
                }
              </select></mat-form-field
            >
            <mat-form-field
              ><mat-label>From, %</mat-label
              ><input
                matInput
                type="number"
                step="any"
                [name]="'zf' + i"
                [ngModel]="z.fromPercent"
                (ngModelChange)="zone(i, { fromPercent: $event ?? 0 })"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>To, %</mat-label
              ><input
                matInput
                type="number"
                step="any"
                [name]="'zz' + i"
                [ngModel]="z.toPercent"
                (ngModelChange)="zone(i, { toPercent: $event ?? 0 })"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>Turn</mat-label
              ><input
                matInput
                type="number"
                min="1"
                [name]="'zo' + i"
                [ngModel]="z.order"
                (ngModelChange)="zone(i, { order: $event ?? 1 })"
            /></mat-form-field>
            @if (z.way === 'tie' || z.way === 'bind') {
              <mat-form-field
                ><mat-label>Spacing, cm</mat-label
                ><input
                  matInput
                  type="number"
                  step="any"
                  [name]="'zs' + i"
                  [ngModel]="z.spacingCm"
                  (ngModelChange)="zone(i, { spacingCm: $event })"
              /></mat-form-field>
            } @else if (z.way !== 'leave') {
              <mat-form-field
                ><mat-label>Minutes in it</mat-label
                ><input
                  matInput
                  type="number"
                  [name]="'zm' + i"
                  [ngModel]="z.minutes"
                  (ngModelChange)="zone(i, { minutes: $event ?? 0 })"
              /></mat-form-field>
              <mat-form-field
                ><mat-label>then wait, min</mat-label
                ><input
                  matInput
                  type="number"
                  [name]="'zwait' + i"
                  [ngModel]="z.waitMin"
                  (ngModelChange)="zone(i, { waitMin: $event ?? 0 })"
              /></mat-form-field>
              <mat-form-field
                ><mat-label>ml a piece</mat-label
                ><input
                  matInput
                  type="number"
                  step="any"
                  [name]="'zml' + i"
                  [ngModel]="z.mlPerPiece"
                  (ngModelChange)="zone(i, { mlPerPiece: $event })"
              /></mat-form-field>
              <mat-form-field
                ><mat-label>g a piece</mat-label
                ><input
                  matInput
                  type="number"
                  step="any"
                  [name]="'zg' + i"
                  [ngModel]="z.gPerPiece ?? null"
                  (ngModelChange)="zone(i, { gPerPiece: $event })"
              /></mat-form-field>
              <mat-form-field
                ><mat-label>What goes on</mat-label
                ><select
                  matNativeControl
                  [name]="'zmat' + i"
                  [ngModel]="z.materialId ?? ''"
                  (ngModelChange)="zone(i, { materialId: $event || null })"
                >
                  <option value="">the dye bath</option>
                  @for (m of materials(); track m.id) {
                    <option [value]="m.id">{{ m.name }}</option>
                  }
                </select></mat-form-field
              >
            }
            <button class="plain" type="button" (click)="drop(i)">Take the zone out</button>
          </div>
        </fieldset>
      }
      <button class="plain" type="button" (click)="add()">Another zone</button>
      <button class="plain" type="button" (click)="plan.set(null)">No placed colour</button>
    } @else {
      <button class="plain" type="button" (click)="begin()">Place colour along the piece</button>
    }`,
  styles: `
    .strip {
      position: relative;
      margin: 0.75rem 0 1rem;
      touch-action: none;
    }
    .edge {
      position: absolute;
      width: 24px;
      height: 44px;
      margin-left: -12px;
      padding: 0;
      border: 0;
      background: none;
      cursor: ew-resize;
      touch-action: none;
    }
    .edge::after {
      content: '';
      position: absolute;
      left: 10px;
      top: 0;
      bottom: 10px;
      width: 4px;
      background: var(--ink);
      outline: 1px solid var(--sheet);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlacedEditor {
  readonly plan = model.required<PlacedPlan | null>();
  readonly materials = input.required<readonly ListedMaterial[]>();
  private readonly strip = viewChild<ElementRef<HTMLElement>>('strip');
  protected readonly ways = ZONE_WAYS;
  protected readonly words = ZONE_WORDS;
  protected readonly fault = computed(() => {
    const p = this.plan();
    return p ? findPlacedFault(p) : undefined;
  });
  protected readonly cautions = computed(() => {
    const p = this.plan();
    return p && !this.fault() ? layOutPlaced(p, 1).cautions : [];
  });
  /** Handles over the picture: its sides have a margin of 6 of 1012. */
  protected readonly edges = computed(() => {
    const zones = this.plan()?.zones ?? [];
    const turns = [...new Set(zones.map((z) => z.order))].sort((a, b) => a - b);
    const rowPx = ((this.strip()?.nativeElement.clientWidth ?? 700) / 1012) * 46;
    return zones.flatMap((z, i) =>
      (['fromPercent', 'toPercent'] as const).map((side) => ({
        id: `${i} ${side}`,
        zone: i,
        side,
        percent: z[side],
        left: ((6 + z[side] * 10) / 1012) * 100,
        top: turns.indexOf(z.order) * rowPx,
        label: `${z.title || `zone ${i + 1}`}, ${side === 'fromPercent' ? 'lower' : 'upper'} edge`,
      })),
    );
  });

  protected begin(): void {
    this.plan.set({ lengthCm: 75, piece: 'skein', bleedPercent: 4, zones: [{ ...NEW_ZONE, title: 'First dip' }] });
  }

  protected change(part: Partial<PlacedPlan>): void {
    const p = this.plan();
    if (p) this.plan.set({ ...p, ...part });
  }

  protected zone(index: number, part: Partial<PlacedZone>): void {
    const p = this.plan();
    if (p) this.change({ zones: p.zones.map((z, i) => (i === index ? { ...z, ...part } : z)) });
  }

  protected add(): void {
    const zones = this.plan()?.zones ?? [];
    const from = Math.min(95, Math.max(0, ...zones.map((z) => z.toPercent)));
    this.change({
      zones: [
        ...zones,
        { ...NEW_ZONE, title: `Zone ${zones.length + 1}`, fromPercent: from, toPercent: Math.min(100, from + 20) },
      ],
    });
  }

  protected drop(index: number): void {
    this.change({ zones: (this.plan()?.zones ?? []).filter((_, i) => i !== index) });
  }

  protected grab(event: PointerEvent, zone: number, side: 'fromPercent' | 'toPercent'): void {
    const handle = event.currentTarget as HTMLElement;
    const box = this.strip()?.nativeElement.getBoundingClientRect();
    if (!box) return;
    event.preventDefault();
    handle.focus();
    const move = (e: PointerEvent): void =>
      this.moveTo(zone, side, (((e.clientX - box.left) / box.width) * 1012 - 6) / 10);
    const stop = (): void => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', stop);
      window.removeEventListener('pointercancel', stop);
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', stop);
    window.addEventListener('pointercancel', stop);
  }

  protected nudge(event: KeyboardEvent, zone: number, side: 'fromPercent' | 'toPercent'): void {
    const by = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1, PageDown: -10, PageUp: 10 }[event.key];
    const z = this.plan()?.zones[zone];
    if (by === undefined || !z) return;
    event.preventDefault();
    this.moveTo(zone, side, z[side] + by);
  }

  private moveTo(zone: number, side: 'fromPercent' | 'toPercent', percent: number): void {
    const p = this.plan();
    if (p) this.change({ zones: moveEdge(p.zones, zone, side, percent) });
  }
}
