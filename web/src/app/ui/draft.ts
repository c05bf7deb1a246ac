import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  Injector,
  afterNextRender,
  effect,
  inject,
  input,
  linkedSignal,
  untracked,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { NgForm } from '@angular/forms';
import { JustKept } from '../api/just-kept';
import type { PageAction } from '../api/page-action';
import { Drafts } from '../services/drafts';
import { When } from './when';

/** A signal of whatever kind that is read and set again. */
interface Chosen {
  (): unknown;
  set(value: never): void;
}

const KEEP_AFTER_MS = 250;
/** Fields may stand only once others are filled in: so often the form is looked over for new ones. */
const ROUNDS = 8;

/**
 * Stands first in a form and keeps what is written there in the tablet, until the form's action succeeded. Who comes
 * back to a form left half-written is offered it again. Only what somebody wrote is kept, not what stood there already.
 */
@Component({
  selector: 'vs-draft',
  imports: [When],
  template: `@if (found(); as d) {
    <p i18n class="draft" role="status">
      You began this {{ d.at | when: 'moment' }}, and it isn’t kept in the studio yet.
      <button class="plain" type="button" (click)="goOn()">Go on with it</button>
      <button class="plain" type="button" (click)="throwAway()">Throw it away</button>
    </p>
  }`,
  styles: `
    .draft {
      border: 2px dashed var(--line-strong);
      padding: 0.25rem 0.75rem;
      max-width: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DraftOf {
  private readonly drafts = inject(Drafts);
  private readonly form = inject(NgForm);
  private readonly justKept = inject(JustKept);
  private readonly injector = inject(Injector);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** Which form of what: `delivery`, `material 01…`. */
  readonly of = input.required<string>();
  /** What keeps it; a form that hands over what is written, as at the bench, is done when it is sent. */
  readonly action = input<PageAction>();
  /** What is chosen in the form without being one of its fields, by name. */
  readonly also = input<Readonly<Record<string, Chosen>>>({});
  protected readonly found = linkedSignal(() => this.drafts.read(this.of()));
  private readonly alsoAtFirst = new Map<string, string>();
  /** Somebody had a hand in the form: until then what changes in it comes from elsewhere. */
  private touched = false;
  private readonly secrets = new Set<string>();
  private doneBefore = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    this.form.form.valueChanges.pipe(takeUntilDestroyed()).subscribe(() => this.soon());
    effect(() => {
      for (const [name, value] of Object.entries(this.also())) {
        const said = JSON.stringify(value());
        if (!this.touched) this.alsoAtFirst.set(name, said);
        else if (said !== this.alsoAtFirst.get(name)) this.soon();
      }
    });
    effect(() => {
      if ((this.action()?.done() ?? 0) > this.doneBefore) untracked(() => this.kept());
    });
    this.form.ngSubmit.pipe(takeUntilDestroyed()).subscribe(() => {
      if (!this.action()) this.kept();
    });
    const touched = (): void => {
      this.touched = true;
      this.soon();
    };
    const kinds = ['input', 'change', 'click', 'keydown'] as const;
    afterNextRender(() => {
      for (const kind of kinds) this.host.closest('form')?.addEventListener(kind, touched);
    });
    const flush = (): void => {
      // What was kept in the studio a moment ago is no draft any more, though nothing was drawn since.
      if ((this.action()?.done() ?? 0) > this.doneBefore) this.kept();
      else if (this.timer !== undefined) this.keep();
    };
    window.addEventListener('pagehide', flush);
    inject(DestroyRef).onDestroy(() => {
      window.removeEventListener('pagehide', flush);
      flush();
    });
  }

  private soon(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.keep(), KEEP_AFTER_MS);
  }

  private keep(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    const secret = this.secretNames();
    const written = Object.entries(this.form.controls)
      .filter(([name, c]) => !secret.has(name) && c.dirty && c.value !== null && c.value !== '')
      .map(([name, c]) => [name, c.value as unknown] as const);
    const chosen = Object.entries(this.also())
      .filter(([name, value]) => this.touched && JSON.stringify(value()) !== this.alsoAtFirst.get(name))
      .map(([name, value]) => [ALSO + name, value()] as const);
    if (written.length + chosen.length === 0) {
      // What was begun and emptied again is gone; what is still offered stays.
      if (!this.found() && this.form.dirty) this.drafts.drop(this.of());
      return;
    }
    // While an earlier beginning is still offered, what is written anew goes over it field by field.
    this.drafts.keep(this.of(), { ...this.found()?.fields, ...Object.fromEntries([...written, ...chosen]) });
  }

  /** A passphrase is written anew each time: none is ever kept in a tablet. */
  private secretNames(): ReadonlySet<string> {
    const fields = this.host.closest('form')?.querySelectorAll<HTMLInputElement>('input[type=password]') ?? [];
    for (const field of fields) this.secrets.add(field.name);
    return this.secrets;
  }

  private kept(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    this.doneBefore = this.action()?.done() ?? 0;
    this.touched = false;
    this.found.set(undefined);
    this.drafts.drop(this.of());
    this.justKept.noteForm(this.form);
    this.form.form.markAsPristine();
    for (const [name, value] of Object.entries(this.also())) this.alsoAtFirst.set(name, JSON.stringify(value()));
  }

  protected throwAway(): void {
    this.found.set(undefined);
    this.drafts.drop(this.of());
  }

  protected goOn(): void {
    const draft = this.found();
    if (!draft) return;
    this.found.set(undefined);
    const pending = new Map(Object.entries(draft.fields));
    for (const [name, value] of Object.entries(this.also())) {
      if (pending.has(ALSO + name)) value.set(pending.get(ALSO + name) as never);
      pending.delete(ALSO + name);
    }
    this.fill(pending, ROUNDS);
    // As if it had been typed just now: a form that others may change meanwhile stands still from here.
    this.host.dispatchEvent(new Event('input', { bubbles: true }));
  }

  private fill(pending: Map<string, unknown>, rounds: number): void {
    for (const [name, value] of pending) {
      const control = this.form.controls[name];
      if (!control) continue;
      control.setValue(value);
      control.markAsDirty();
      pending.delete(name);
    }
    if (pending.size === 0 || rounds === 0) return;
    // A field made by this drawing joins its form a moment after it.
    afterNextRender(
      () =>
        void Promise.resolve()
          .then(() => Promise.resolve())
          .then(() => this.fill(pending, rounds - 1)),
      {
        injector: this.injector,
      },
    );
  }
}

const ALSO = '+';
