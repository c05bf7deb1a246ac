import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail } from '@vestigia/contract';
import type { BenchAct, RunEntryKind } from '@vestigia/core';
import { earlyStartWords, foldRun, isOver, openBefore } from '@vestigia/core';
import type { Said } from './bench-state';
import { BenchState } from './bench-state';
import { readNumber } from './read-number';

export const PANELS = ['note', 'otherwise', 'temperature', 'ph', 'sample', 'bath', 'more'] as const;
export type Panel = (typeof PANELS)[number];

/** Quick notes, as they would be called across the room. */
const NOTES = ['Lifted and turned', 'Lid on', 'Lid off', 'Heat down', 'Even so far', 'Patchy', 'Colour is strong', 'Colour is weak', 'Floats: pushed under', 'Foam on top', 'Rinse runs clear', 'Smells odd'] as const;
/** Common departures from the plan, each with its likely effect. */
const OTHERWISE = [
  'It boiled: yellows dull and wool felts', 'Got hotter than it should, for a moment: the shade may be duller', 'Started late: the fibre stood, so it may take unevenly', 'Heat was off for a while: expect paler', 'Fibre went in dry: expect patches',
  'Pieces were crowded: expect fold marks', 'Bath had to be stretched with water: expect paler', 'A spoon instead of the balance: the dose is uncertain', 'Dyestuff was not strained: expect spots', 'Another pot lid or spoon that met iron: expect saddened', 'Agitated too much: the wool may have felted', 'One piece fell out or was lifted early: it will be paler',
] as const;

export interface SaidOf {
  readonly kind: RunEntryKind;
  readonly stepIndex: number;
  readonly said: Said;
}

/** What a person says at the bench with a tap or a few words: notes, departures, temperature, and everything out of the usual order. */
@Component({
  selector: 'vs-said-panel',
  imports: [FormsModule, MatFormFieldModule, MatInputModule],
  template: `
    @switch (panel()) {
      @case ('note') {
        <section class="aside" aria-label="Note"><div class="taps">@for (n of notes; track n) { <button class="act" type="button" (click)="say('note', { text: n })">{{ n }}</button> }</div>
          <form (ngSubmit)="say('note', { text: text() })"><mat-form-field><mat-label>What you saw</mat-label><input matInput name="text" [(ngModel)]="text"></mat-form-field><button class="act" type="submit">Write it down</button> <button class="plain" type="button" (click)="closed.emit()">Back</button></form>
          @if (!rehearsal()) { <label class="act photo">A photograph<input type="file" accept="image/png,image/jpeg,image/webp" capture="environment" (change)="photo($event)"></label> }
        </section>
      }
      @case ('otherwise') {
        <section class="aside" aria-label="Otherwise than planned"><div class="taps">@for (n of otherwise; track n) { <button class="act" type="button" (click)="say('note', { text: n, detail: { deviation: true } })">{{ n }}</button> }</div>
          <form (ngSubmit)="say('note', { text: text(), detail: { deviation: true } })"><mat-form-field><mat-label>In your own words</mat-label><input matInput name="text" [(ngModel)]="text"></mat-form-field><button class="act" type="submit">Write it down</button> <button class="plain" type="button" (click)="closed.emit()">Back</button></form>
        </section>
      }
      @case ('temperature') { <form class="aside" (ngSubmit)="say('temperature', { temperatureC: degrees() })"><mat-form-field><mat-label>Temperature, °C</mat-label><input matInput name="t" inputmode="decimal" [(ngModel)]="text"></mat-form-field><button class="act" type="submit">Write it down</button> <button class="plain" type="button" (click)="closed.emit()">Back</button></form> }
      @case ('more') {
        <section class="aside" aria-label="More">
          <form (ngSubmit)="say('skip', { text: text() })"><mat-form-field class="wide"><mat-label>Why</mat-label><input matInput name="text" [(ngModel)]="text"></mat-form-field>
            <button class="act" type="submit">Skip “{{ act().step.title }}”</button>
            <button class="act" type="button" (click)="say('redo', { text: text() })" [disabled]="act().record.startedAt === undefined">Do “{{ act().step.title }}” over</button>
            @for (s of done(); track s.index) { <button class="act" type="button" (click)="sayAt(s.index, 'redo', { text: text() })">Do “{{ s.title }}” over</button> }
            <button class="plain" type="button" (click)="closed.emit()">Back</button></form>
          @if (ahead().length > 0) { <h3>Begin another step now</h3>@for (a of ahead(); track a.step.index) { <p><button class="act" type="button" (click)="sayAt(a.step.index, 'start', { text: a.words, detail: { outOfOrder: true } })">Begin “{{ a.step.title }}”</button> {{ a.words }}</p> } }
          @if (act().kind === 'begin' && act().step.usesBath) {
            <h3>Begin it in another pot or water</h3>
            <div class="fields"><mat-form-field><mat-label>Pot for batch {{ batch() }}</mat-label><select matNativeControl name="pot" [(ngModel)]="potId"><option value="">as planned</option>@for (v of state.around()?.vessels ?? []; track v.id) { <option [value]="v.id">{{ v.name }} · {{ v.metal }}</option> }</select></mat-form-field>
            <mat-form-field><mat-label>Water</mat-label><select matNativeControl name="water" [(ngModel)]="waterId"><option value="">as planned</option>@for (w of state.around()?.waters ?? []; track w.id) { <option [value]="w.id">{{ w.name }}</option> }</select></mat-form-field></div>
            <button class="act" type="button" [disabled]="potId() === '' && waterId() === ''" (click)="beginElsewhere()">Begin so</button>
          }
          <h3>Hand over to</h3><div class="taps">@for (p of state.around()?.people ?? []; track p.id) { <button class="act" type="button" (click)="say('hand', { detail: { toPerson: p } })">{{ p.name }}</button> }</div>
        </section>
      }
    }`,
  styles: `.taps { display: flex; flex-wrap: wrap; gap: 0.5rem; margin: 0.5rem 0 0.75rem; } .taps .act { min-height: 56px; text-align: left; } h3 { margin: 1rem 0 0.25rem; } .photo { display: inline-flex; align-items: center; min-height: 56px; } .photo input { position: absolute; opacity: 0; width: 1px; } .photo:focus-within { outline: 3px solid var(--ink); }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SaidPanel {
  protected readonly state = inject(BenchState);
  readonly panel = input.required<Panel>();
  readonly act = input.required<BenchAct>();
  readonly lot = input.required<LotDetail>();
  readonly said = output<SaidOf>();
  readonly photographed = output<File>();
  readonly closed = output();
  protected readonly notes = NOTES;
  protected readonly otherwise = OTHERWISE;
  protected readonly rehearsal = this.state.isRehearsal;
  protected readonly text = signal('');
  protected readonly potId = signal('');
  protected readonly waterId = signal('');
  protected readonly batch = computed(() => this.act().step.baths[0]?.batches[0] ?? 1);
  private readonly records = computed(() => foldRun(this.lot().entries, this.lot().plan.steps.length));
  /** Steps whose time has not come: they can be begun all the same, with what that means. */
  protected readonly ahead = computed(() => {
    const { plan } = this.lot();
    return plan.steps.filter((s) => this.records()[s.index]?.startedAt === undefined && !isOver(this.records()[s.index])).flatMap((step) => { const open = openBefore(plan, this.records(), step); return open.length === 0 ? [] : [{ step, words: earlyStartWords(step, open) }]; }).slice(0, 3);
  });
  /** The last step that is over: it can be done over. */
  protected readonly done = computed(() => this.lot().plan.steps.filter((s) => this.records()[s.index]?.finishedAt !== undefined && s.index !== this.act().step.index).slice(-1));

  protected say(kind: RunEntryKind, said: Said): void {
    this.sayAt(this.act().step.index, kind, said);
  }

  protected sayAt(stepIndex: number, kind: RunEntryKind, said: Said): void {
    this.said.emit({ kind, stepIndex, said });
  }

  protected beginElsewhere(): void {
    const pot = this.state.around()?.vessels.find((v) => v.id === this.potId());
    const water = this.state.around()?.waters.find((w) => w.id === this.waterId());
    this.say('start', { detail: { ...(pot ? { vessels: [{ batch: this.batch(), vesselId: pot.id, vesselName: pot.name }] } : {}), ...(water ? { water: { id: water.id, name: water.name } } : {}) } });
  }

  protected degrees(): number | null {
    return readNumber(this.text()) ?? null;
  }

  protected photo(event: Event): void {
    const file = (event.target as HTMLInputElement).files?.[0];
    if (file) this.photographed.emit(file);
  }
}
