import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { RecipeSummary } from '@vestigia/contract';
import { sayMinutes } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { Margin } from '../../shell/margin';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';

type Standing = RecipeSummary['versions'][number]['standing'];

/** One recipe version, to read. It never changes; a new version is written instead. */
@Component({
  selector: 'vs-recipe',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, When],
  template: `
    <vs-refusal [problem]="version.problem()" />
    @if (version.value(); as v) {
      <div class="head">
        <div><h1>{{ v.recipe.name }} <span class="soft">version {{ v.number }}</span></h1><p class="soft">Written {{ v.at | when }} by {{ v.by.name }} · <span class="state" [class.strong]="v.standing === 'proven'">{{ v.standing }}</span></p></div>
        <div class="actions"><a class="act" routerLink="/recipes/write" [queryParams]="{ from: v.id }">Write the next version</a></div>
      </div>
      @if (v.recipe.versions.length > 1) { <p>Versions: @for (o of v.recipe.versions; track o.id) { <a [routerLink]="['/recipes', o.id]" [attr.aria-current]="o.id === v.id ? 'page' : null">{{ o.number }} ({{ o.standing }})</a>&ngsp; }</p> }
      <dl class="facts">
        <dt>For</dt><dd>{{ v.body.fibres.join(', ') }}</dd>
        <dt>Liquor ratio</dt><dd>1:{{ v.body.liquorRatio }} (ml per g of fibre)</dd>
        <dt>Pots of</dt><dd>{{ v.body.allowedMetals.join(' or ') }}</dd>
        @if (v.body.note) { <dt>Note</dt><dd>{{ v.body.note }}</dd> }
      </dl>
      <h2>What goes in, of the weight of fibre</h2>
      <table class="ledger doses"><tbody>@for (d of doses(); track d.name) { <tr><td>{{ d.name }}</td><td class="number"><strong>{{ d.percentOwf }} %</strong></td><td class="small soft">{{ d.where }}</td></tr> }</tbody></table>
      <h2>What is done</h2>
      <ol class="steps">
        @for (s of v.body.steps; track $index) {
          <li>
            <h3>{{ s.title }}</h3>
            <p class="when">@if (s.temperatureC !== undefined) { <strong>{{ s.temperatureC }} °C</strong> } @if (s.ceilingC !== undefined) { <span class="soft">never above {{ s.ceilingC }} °C</span> } <strong>{{ minutes(s.durationMin) }}</strong> <span class="soft">{{ s.attended ? 'hands all the time' : 'waiting' }}</span></p>
            <p>{{ s.instruction }}</p>
            @if (s.doses.length > 0) { <p>@for (d of s.doses; track d.materialId) { <span class="dose">{{ nameOf(d.materialId) }} {{ d.percentOwf }} % WOF</span> }</p> }
            @if (s.lookFor) { <p class="soft">Look for: {{ s.lookFor }}</p> }
          </li>
        }
      </ol>
      @if (v.colourways.length > 0) { <h2>Colourways dyed with it</h2><p>@for (c of v.colourways; track c.id) { <a [routerLink]="['/colourways', c.id]">{{ c.name }}</a>&ngsp; }</p> }
      <h2>Where it stands</h2>
      <form (ngSubmit)="stand()" class="fields">
        <mat-form-field><mat-label>Standing</mat-label><select matNativeControl name="standing" [(ngModel)]="standing"><option value="trial">trial</option><option value="proof">proof</option><option value="proven">proven</option><option value="retired">retired</option></select></mat-form-field>
        <mat-form-field><mat-label>Why</mat-label><input matInput name="reason" [(ngModel)]="reason"></mat-form-field>
        <div><button class="act" type="submit" [disabled]="action.busy()">Say so</button></div>
      </form>
      <vs-refusal [problem]="action.problem()" />
    }`,
  styles: `.doses { max-width: 40rem; } .steps { padding-left: 1.5rem; } .steps li { border-top: 1px solid var(--line); padding: 0.25rem 0 0.5rem 0.5rem; } .steps li::marker { font-weight: 800; } .steps p { margin: 0.15rem 0; } .when > * { margin-right: 0.75rem; } .dose { border: 1px solid var(--ink-soft); padding: 0.1rem 0.5rem; margin-right: 0.5rem; }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipePage {
  private readonly api = inject(ApiClient);
  private readonly margin = inject(Margin);
  readonly id = input.required<string>();
  protected readonly version = live(['recipes', 'colourways'], () => this.api.get('/api/recipe-versions/{id}', { id: this.id() }), () => this.id());
  protected readonly action = doing();
  protected readonly standing = signal<Standing>('proof');
  protected readonly reason = signal('');
  protected readonly minutes = sayMinutes;

  protected readonly doses = computed(() => {
    const v = this.version.value();
    return (v?.body.steps ?? []).flatMap((s) => s.doses.map((d) => ({ name: this.nameOf(d.materialId), percentOwf: d.percentOwf, where: `in “${s.title}”` })));
  });

  constructor() {
    effect(() => {
      const v = this.version.value();
      this.margin.notes.set(v ? [{ title: 'History', lines: v.standings.map((s) => `${new Date(s.at).toLocaleDateString('en-GB')}: ${s.standing}, said ${s.by.name}${s.reason ? `. ${s.reason}` : ''}`) }] : []);
    });
  }

  protected nameOf(id: string): string {
    return this.version.value()?.materials.find((m) => m.id === id)?.name ?? '';
  }

  protected stand(): void {
    this.action.run(this.api.post('/api/recipe-versions/{id}/standings', { id: newId(), standing: this.standing(), reason: this.reason() }, this.id()), () => this.version.reload());
  }
}
