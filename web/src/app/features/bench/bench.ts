import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, DestroyRef, computed, effect, inject, input, linkedSignal, signal, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { LotDetail, NewRunEntry, RunEntryView } from '@vestigia/contract';
import { formatAmount, readAmount, sayCourse, sayMinutes, smallestIn } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { doing } from '../../api/doing';
import { live } from '../../api/live';
import { Margin } from '../../shell/margin';
import { isTyping } from '../../shell/places';
import { entryWords } from '../../ui/entry-words';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { StepBaths } from '../../ui/step-baths';
import { Thread } from '../../ui/thread';
import { When } from '../../ui/when';
import { entry, nextAct } from './next-act';

const TICK_MS = 1000;
type Aside = 'note' | 'temperature' | 'skip';

/** The dye day, one thing at a time, to be read at two metres. Space or Enter does the one thing. */
@Component({
  selector: 'vs-bench',
  imports: [RouterLink, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote, StepBaths, Thread, When],
  template: `
    <vs-refusal [problem]="lot.problem()" />
    @if (lot.value(); as l) {
      <p class="where"><a [routerLink]="['/lots', l.summary.id]"><strong>{{ l.summary.tag }}</strong></a> {{ l.summary.colourway.name }} · {{ l.summary.pieces }} pieces</p>
      <vs-thread [stations]="l.summary.stations" [undyed]="l.summary.undyed" [master]="l.summary.master" [result]="l.summary.result" [batches]="l.plan.batches.length" />
      <section class="one" aria-live="polite">
        @switch (act()?.kind) {
          @case ('begin') {
            @if (beginning(); as a) {
              <p class="place">Step {{ a.step.index + 1 }} of {{ l.plan.steps.length }}</p>
              <h1>{{ a.step.title }}</h1>
              <p class="figures">@if (a.step.temperatureC !== undefined) { <span>{{ a.step.temperatureC }} °C</span> } <span>{{ minutes(a.step.durationMin) }}</span></p>
              <p class="say">{{ a.step.instruction }}</p>
              @if (a.step.forWhom) { <p class="say"><strong>{{ a.step.forWhom }}</strong></p> }
              @if (course(a.step); as c) { <p class="say">{{ c }}</p> }
              @if (a.step.baths.length > 0) { <vs-step-baths [baths]="a.step.baths" /> } @else if (a.step.usesBath) { @for (b of l.plan.batches; track b.number) { <p>{{ b.vesselName }}: {{ litres(b.liquor.value) }} of liquor, {{ b.pieces }} pieces</p> } }
              <button #main class="act main bench" type="button" [disabled]="doingIt.busy()" (click)="record('start')">Begin</button>
            }
          }
          @case ('weigh') {
            @if (weighing(); as a) {
              <p class="place">{{ a.step.title }} · {{ batchWords(a.weighing.forBatches, a.weighing.batch) }}, {{ vesselFor(l, a.step, a.weighing.batch) }}</p>
              <h1>{{ a.weighing.materialName }}</h1>
              <p class="target">{{ amount(a.target, a.weighing.measure) }}</p>
              <form (ngSubmit)="weigh()">
                <div class="fields">
                  <mat-form-field class="big"><mat-label>{{ a.weighing.measure === 'weight' ? 'What the balance shows' : 'What was measured out' }}</mat-label><input #field matInput name="shown" [(ngModel)]="shown" autocomplete="off" inputmode="text"></mat-form-field>
                  <mat-form-field class="big"><mat-label>From jar</mat-label><select matNativeControl name="jar" [(ngModel)]="jarId">@if (jarId() === '') { <option value="">none on the shelf</option> }@for (j of jarsFor(l, a.weighing.materialId); track j.id) { <option [value]="j.id">{{ j.tag }} · {{ j.place }} · {{ amount(j.onHand, j.measure) }}</option> }</select></mat-form-field>
                </div>
                @for (line of a.weighing.advice; track line) { <p class="say">{{ line }}</p> }
                <p class="off">{{ offWords() }}</p>
                <button class="act main bench" type="submit" [disabled]="doingIt.busy() || jarId() === ''">Weighed</button>
                <button class="plain" type="button" (click)="aside.set('finishWithout')">Can’t be weighed</button>
              </form>
              @if (aside() === 'finishWithout') {
                <form class="aside" (ngSubmit)="finishWithout()"><mat-form-field><mat-label>Why is it left out?</mat-label><input matInput name="text" [(ngModel)]="text"></mat-form-field><button class="act" type="submit">Finish the step without it</button> <button class="plain" type="button" (click)="aside.set('')">Back</button></form>
              }
            }
          }
          @case ('finish') {
            @if (finishing(); as a) {
              <p class="place">{{ a.step.title }}, begun {{ l.summary.next?.startedAt | when: 'clock' }}</p>
              <h1>{{ a.step.attended ? a.step.title : leftMs() > 0 ? countdown() : 'Time is up' }}</h1>
              <p class="figures">@if (a.step.temperatureC !== undefined) { <span>{{ a.step.temperatureC }} °C</span> } @if (a.step.ceilingC !== undefined) { <span class="soft">never above {{ a.step.ceilingC }} °C</span> } @if (lastTemperature(); as t) { <span>now {{ t }} °C</span> }</p>
              <p class="say">{{ a.step.instruction }}</p>
              @if (a.step.lookFor) { <p class="say"><strong>Look for:</strong> {{ a.step.lookFor }}</p> }
              <button #main class="act main bench" type="button" [disabled]="doingIt.busy()" (click)="record('finish')">{{ a.step.attended || leftMs() <= 0 ? 'Done' : 'Done early' }}</button>
            }
          }
          @case ('judge') {
            <h1>All steps done</h1><p class="say">Read it dry, in daylight, then judge it.</p><a class="act main bench" [routerLink]="['/judge', l.summary.id]">Judge it</a>
          }
          @default { <h1>{{ l.summary.tag }} is closed</h1><p class="say">Its record can be read, not added to.</p><a class="act main bench" [routerLink]="['/lots', l.summary.id]">Read the record</a> }
        }
        <vs-refusal [problem]="doingIt.problem()" />
      </section>
      @if (act(); as a) {
        @if (a.kind !== 'judge') {
          <div class="actions">
            <button class="act" type="button" (click)="aside.set('note')">Note</button>
            @if (a.kind !== 'begin') { <button class="act" type="button" (click)="aside.set('temperature')">Temperature</button> }
            <button class="act" type="button" (click)="aside.set('skip')">Skip this step</button>
          </div>
          @switch (aside()) {
            @case ('note') { <form class="aside" (ngSubmit)="say()"><mat-form-field><mat-label>What you saw</mat-label><input matInput name="text" [(ngModel)]="text"></mat-form-field><button class="act" type="submit">Write it down</button> <button class="plain" type="button" (click)="aside.set('')">Back</button></form> }
            @case ('temperature') { <form class="aside" (ngSubmit)="readTemperature()"><mat-form-field><mat-label>Temperature, °C</mat-label><input matInput name="t" inputmode="decimal" [(ngModel)]="temperature"></mat-form-field><button class="act" type="submit">Write it down</button> <button class="plain" type="button" (click)="aside.set('')">Back</button></form> }
            @case ('skip') { <form class="aside" (ngSubmit)="skip()"><mat-form-field><mat-label>Why is it skipped?</mat-label><input matInput name="text" [(ngModel)]="text"></mat-form-field><button class="act" type="submit">Skip it</button> <button class="plain" type="button" (click)="aside.set('')">Back</button></form> }
          }
        }
      }
      <h2>Written down</h2>
      <table class="ledger"><tbody>
        @for (e of record10(); track e.entry.id) {
          <tr [class.struck]="e.struck"><td class="small">{{ e.entry.at | when: 'moment' }}</td><td class="soft">{{ e.step }}</td><td>{{ e.words }}</td><td class="small">{{ e.entry.by.name }}</td><td>@if (e.correctable) { <button class="plain small" type="button" (click)="correct(e.entry)">Correct</button> }</td></tr>
          @if (correcting()?.id === e.entry.id) {
            <tr><td colspan="5"><form class="aside" (ngSubmit)="keepCorrection()"><mat-form-field><mat-label>{{ e.entry.kind === 'weigh' ? 'What was really weighed' : e.entry.kind === 'temperature' ? 'What it really was, °C' : 'What should stand' }}</mat-label><input matInput name="right" [(ngModel)]="right"></mat-form-field><button class="act" type="submit">Correct it</button> <button class="plain" type="button" (click)="correcting.set(undefined)">Leave it</button></form></td></tr>
          }
        }
      </tbody></table>
    }`,
  styleUrl: './bench.scss',
  host: { '(document:keydown)': 'onKey($event)' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BenchPage {
  private readonly api = inject(ApiClient);
  private readonly margin = inject(Margin);
  readonly id = input.required<string>();
  private readonly main = viewChild<ElementRef<HTMLButtonElement>>('main');
  private readonly field = viewChild<ElementRef<HTMLInputElement>>('field');
  protected readonly lot = live(['lots', 'stores'], () => this.api.get('/api/lots/{id}', { id: this.id() }), () => this.id());
  protected readonly doingIt = doing();
  protected readonly act = computed(() => { const l = this.lot.value(); return l ? nextAct(l) : undefined; });
  protected readonly beginning = computed(() => { const a = this.act(); return a?.kind === 'begin' ? a : undefined; });
  protected readonly weighing = computed(() => { const a = this.act(); return a?.kind === 'weigh' ? a : undefined; });
  protected readonly finishing = computed(() => { const a = this.act(); return a?.kind === 'finish' ? a : undefined; });

  protected readonly shown = signal('');
  protected readonly jarId = linkedSignal(() => { const a = this.weighing(); return a?.pick.stockLotId ?? this.lot.value()?.jars.find((j) => j.materialId === a?.weighing.materialId && j.onHand > 0)?.id ?? ''; });
  protected readonly aside = signal<Aside | 'finishWithout' | ''>('');
  protected readonly text = signal('');
  protected readonly temperature = signal('');
  protected readonly correcting = signal<RunEntryView | undefined>(undefined);
  protected readonly right = signal('');
  private readonly now = signal(Date.now());
  /** Ids of the entry being made: kept while it is tried again, so that it is recorded once. */
  private ids = { entry: newId(), movement: newId() };

  constructor() {
    const timer = setInterval(() => this.now.set(Date.now()), TICK_MS);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
    effect(() => {
      const a = this.act();
      this.margin.notes.set(a && a.kind !== 'judge' && a.step.cautions.length > 0 ? [{ title: 'Take care', lines: a.step.cautions }] : []);
      if (a?.kind === 'weigh') this.margin.showWorking(a.weighing.materialName, a.weighing.target);
      else this.margin.working.set(undefined);
    });
    // A balance that types like a keyboard finds the field ready.
    effect(() => this.field()?.nativeElement.focus());
  }

  protected onKey(event: KeyboardEvent): void {
    const onControl = event.target instanceof HTMLElement && event.target.closest('button, a, summary') !== null;
    if ((event.key !== ' ' && event.key !== 'Enter') || isTyping(event.target) || onControl || event.repeat) return;
    event.preventDefault();
    this.main()?.nativeElement.click();
  }

  protected readonly leftMs = computed(() => { const a = this.finishing(); return a ? Date.parse(a.endsAt) - this.now() : 0; });
  protected readonly countdown = computed(() => {
    const s = Math.max(0, Math.floor(this.leftMs() / 1000));
    return s >= 3600 ? sayMinutes(s / 60) : `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
  });
  protected readonly lastTemperature = computed(() => {
    const a = this.finishing();
    return this.lot.value()?.entries.filter((e) => e.stepIndex === a?.step.index && e.temperatureC !== null).at(-1)?.temperatureC;
  });

  protected readonly offWords = computed(() => {
    const a = this.weighing();
    if (!a || this.shown().trim() === '') return '';
    const reading = readAmount(this.shown(), a.weighing.measure);
    if (!reading.ok) return reading.sentence;
    const off = reading.amount - a.target;
    if (Math.abs(off) <= a.weighing.tolerance * smallestIn(a.weighing.measure)) return 'Within the tolerance.';
    return `${formatAmount(Math.abs(off), a.weighing.measure)} ${off > 0 ? 'more' : 'less'} than planned. It is recorded as it is.`;
  });

  protected readonly record10 = computed(() => {
    const l = this.lot.value();
    if (!l) return [];
    const replaced = new Set(l.entries.map((e) => e.replacesId));
    const open = l.summary.state === 'inWork' || l.summary.state === 'toJudge' || l.summary.state === 'held';
    return [...l.entries].reverse().slice(0, 14).map((e) => ({
      entry: e, step: l.plan.steps[e.stepIndex]?.title ?? '', words: entryWords(e, l), struck: replaced.has(e.id), correctable: open && !replaced.has(e.id) && ['weigh', 'temperature', 'note'].includes(e.kind),
    }));
  });

  protected record(kind: NewRunEntry['kind'], rest: Partial<NewRunEntry> = {}): void {
    const a = this.act();
    if (!a || a.kind === 'judge') return;
    this.send(entry(this.ids.entry, a.step.index, kind, rest));
  }

  protected weigh(): void {
    const a = this.weighing();
    if (!a) return;
    this.record('weigh', { weighing: { batch: a.weighing.batch, materialId: a.weighing.materialId, stockLotId: this.jarId(), written: this.shown(), movementId: this.ids.movement } });
  }

  protected finishWithout(): void {
    this.record('finish', { text: this.text() });
  }

  protected say(): void {
    this.record('note', { text: this.text() });
  }

  protected skip(): void {
    this.record('skip', { text: this.text() });
  }

  protected readTemperature(): void {
    this.record('temperature', { temperatureC: readDegrees(this.temperature()) });
  }

  protected correct(e: RunEntryView): void {
    this.correcting.set(e);
    this.right.set(e.weighing ? formatAmount(e.weighing.amount, this.lot.value()?.plan.materials.find((m) => m.materialId === e.weighing?.materialId)?.measure ?? 'weight') : e.temperatureC !== null ? String(e.temperatureC) : (e.text ?? ''));
  }

  protected keepCorrection(): void {
    const e = this.correcting();
    if (!e) return;
    const weighing = e.weighing ? { batch: e.weighing.batch, materialId: e.weighing.materialId, stockLotId: e.weighing.stockLotId, written: this.right(), movementId: this.ids.movement } : null;
    this.send(entry(this.ids.entry, e.stepIndex, e.kind, { replacesId: e.id, weighing, temperatureC: e.kind === 'temperature' ? readDegrees(this.right()) : null, text: e.kind === 'note' ? this.right() : null }));
  }

  private send(body: NewRunEntry): void {
    this.doingIt.run(this.api.post('/api/lots/{id}/entries', body, this.id()), () => {
      this.ids = { entry: newId(), movement: newId() };
      this.shown.set('');
      this.text.set('');
      this.temperature.set('');
      this.aside.set('');
      this.correcting.set(undefined);
      this.lot.reload();
    });
  }

  protected readonly amount = formatAmount;
  protected readonly course = sayCourse;
  protected readonly batchWords = (batches: readonly number[], batch: number): string => (batches.length > 1 ? `batches ${batches.join(' and ')} together` : `batch ${batch}`);
  protected readonly minutes = sayMinutes;
  protected readonly litres = (ml: number): string => `${Math.round(ml / 10) / 100} l`;
  protected readonly vesselFor = (l: LotDetail, step: LotDetail['plan']['steps'][number], batch: number): string => step.baths.find((b) => b.batches.includes(batch))?.vesselName ?? l.plan.batches.find((b) => b.number === batch)?.vesselName ?? '';
  protected readonly jarsFor = (l: LotDetail, materialId: string) => l.jars.filter((j) => j.materialId === materialId && j.onHand > 0);
}

/** A temperature as typed; what is no number is left out, and the server says what to write. */
function readDegrees(text: string): number | null {
  const value = Number(text.trim().replace(',', '.').replace(/\s*°?\s*c$/i, ''));
  return text.trim() === '' || !Number.isFinite(value) ? null : value;
}
