import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import { MATERIAL_KIND_WORDS } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { RefusalNote } from '../../ui/refusal';
import { StoresNav } from './stores-nav';

/** Every material the studio knows, with what matters at the pot. */
@Component({
  selector: 'vs-materials',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, StoresNav],
  template: ` <div class="head">
      <h1>Materials</h1>
      <div class="actions"><a class="act main" routerLink="/stores/material">A new material</a></div>
    </div>
    <vs-stores-nav />
    <vs-refusal [problem]="materials.problem()" />
    @if (materials.value(); as all) {
      @if (all.length === 0) {
        <div class="empty">
          <p>
            What stands on the shelf is of a material: a dyestuff, a mordant, a base. Take the first from the catalogue,
            or write your own.
          </p>
          <a class="act main" routerLink="/stores/material">A new material</a>
        </div>
      } @else {
        <mat-form-field class="words" subscriptSizing="dynamic"
          ><mat-label>Only materials with …</mat-label
          ><input matInput [(ngModel)]="words" name="words" placeholder="name, kind or plant"
        /></mat-form-field>
        <div class="scroller">
          <table class="ledger">
            <thead>
              <tr>
                <th>Material</th>
                <th>Kind</th>
                <th>Plant</th>
                <th>Forms</th>
                <th>For</th>
                <th class="number">Not above</th>
                <th>Water</th>
                <th>Light · wash</th>
                <th>Handle with care</th>
              </tr>
            </thead>
            <tbody>
              @for (m of shown(); track m.id) {
                <tr>
                  <td>
                    <a [routerLink]="['/stores/materials', m.id]"
                      ><strong>{{ m.name }}</strong></a
                    >
                  </td>
                  <td>{{ kinds[m.kind] }}{{ m.facts.bringsTannin ? ', brings tannin' : '' }}</td>
                  <td>
                    <em>{{ m.facts.botanicalName }}</em
                    >{{ m.facts.plantPart ? ', ' + m.facts.plantPart : '' }}
                  </td>
                  <td>{{ m.facts.forms.join(', ') }}</td>
                  <td>{{ m.base ? m.base.fibre : m.facts.fibreGroups.join(', ') }}</td>
                  <td class="number">{{ m.facts.ceilingC === null ? '–' : m.facts.ceilingC + ' °C' }}</td>
                  <td>{{ m.facts.water === 'any' ? '' : m.facts.water }}</td>
                  <td>{{ m.facts.light ?? '–' }} · {{ m.facts.wash ?? '–' }}</td>
                  <td class="small">
                    {{
                      m.hazards.length === 0
                        ? ''
                        : m.hazards.length + (m.hazards.length === 1 ? ' caution' : ' cautions')
                    }}
                  </td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      }
    }`,
  styles: `
    .words {
      max-width: 24rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MaterialsPage {
  private readonly api = inject(ApiClient);
  protected readonly kinds = MATERIAL_KIND_WORDS;
  protected readonly materials = live(['stores'], () => this.api.get('/api/materials'));
  protected readonly words = signal('');
  protected readonly shown = computed(() => {
    const words = this.words().trim().toLowerCase();
    return (this.materials.value() ?? []).filter((m) =>
      `${m.name} ${m.kind} ${m.facts.botanicalName} ${m.facts.plantPart}`.toLowerCase().includes(words),
    );
  });
}
