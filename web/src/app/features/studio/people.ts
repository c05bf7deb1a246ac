import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { Person, SignedIn } from '@vestigia/contract';
import type { Language, Role } from '@vestigia/core';
import { LANGUAGES, LANGUAGE_NAMES, ROLES } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { Session } from '../../api/session';
import { ROLE_LABELS } from '../../format/deed-words';
import { May } from '../../ui/may';
import { RefusalNote } from '../../ui/refusal';
import { Sessions } from './sessions';
import { ScrollRegion } from '../../ui/scroll-region';
import { DraftOf } from '../../ui/draft';
import { Kept } from '../../ui/kept';
import { pageLanguage } from '../../api/page-language';

/** Who works here: adding somebody, one’s own passphrase, and a code for whoever forgot theirs. */
@Component({
  selector: 'vs-people',
  imports: [Kept, DraftOf, ScrollRegion, FormsModule, MatFormFieldModule, MatInputModule, May, RefusalNote, Sessions],
  template: `
    <h2 i18n>People</h2>
    <div class="scroller">
      <table class="ledger">
        <caption i18n class="small">
          Who comes in here
        </caption>
        <tbody>
          @for (p of people(); track p.id) {
            <tr [vsKept]="p.id">
              <th scope="row">{{ p.name }}{{ p.id === me()?.id ? says.you : '' }}</th>
              <td>
                @if (mayDecide()) {
                  <select
                    [attr.aria-label]="says.whatMayDo(p.name)"
                    [disabled]="changingRole.busy()"
                    [value]="p.role"
                    (change)="setRole(p, $any($event.target))"
                  >
                    @for (r of roles; track r) {
                      <option [value]="r" [selected]="r === p.role">{{ roleLabel[r] }}</option>
                    }
                  </select>
                } @else {
                  {{ roleLabel[p.role] }}
                }
              </td>
              <td>
                @if (p.id === me()?.id) {
                  <button i18n class="plain" type="button" (click)="isChanging.set(!isChanging())">
                    Change your passphrase
                  </button>
                } @else if (mayDecide()) {
                  <button
                    i18n
                    class="plain"
                    type="button"
                    [disabled]="code.busy()"
                    [attr.aria-label]="says.codeFor(p.name)"
                    (click)="giveCode(p)"
                  >
                    Forgot the passphrase
                  </button>
                }
                @if (given(); as g) {
                  @if (g.personId === p.id) {
                    <p i18n role="status">
                      {{ p.name }} comes in once with the code <b>{{ g.code }}</b> and then chooses a passphrase. It is
                      shown this one time; read it out, or write it down.
                    </p>
                  }
                }
              </td>
            </tr>
          }
        </tbody>
      </table>
    </div>
    <vs-refusal [problem]="code.problem() ?? changingRole.problem()" />
    <p>
      <mat-form-field
        ><mat-label i18n>What you read this in</mat-label
        ><select
          matNativeControl
          name="language"
          [value]="language"
          (change)="chooseLanguage($any($event.target).value)"
        >
          @for (l of languages; track l) {
            <option [value]="l" [lang]="l" [selected]="l === language">{{ languageName[l] }}</option>
          }
        </select></mat-form-field
      >
    </p>
    <vs-refusal [problem]="choosingLanguage.problem()" />
    @if (isChanging()) {
      <form (ngSubmit)="change()">
        <fieldset>
          <legend i18n>Your passphrase</legend>
          <div class="fields">
            <mat-form-field
              ><mat-label i18n>Your passphrase now</mat-label
              ><input matInput type="password" name="current" autocomplete="current-password" [(ngModel)]="current"
            /></mat-form-field>
            <mat-form-field
              ><mat-label i18n>The one you choose</mat-label
              ><input matInput type="password" name="chosen" autocomplete="new-password" [(ngModel)]="chosen"
            /></mat-form-field>
            <div>
              <button i18n class="act" type="submit" [disabled]="changing.busy()">Change the passphrase</button>
            </div>
          </div>
        </fieldset>
        <vs-refusal [problem]="changing.problem()" />
      </form>
    }
    @if (isChanged()) {
      <p i18n role="status">Your passphrase is changed. Other tablets on which you were in ask for the new one.</p>
    }
    <form *vsMay="'owner'" (ngSubmit)="add()">
      <vs-draft of="person" [action]="adding" />
      <fieldset>
        <legend i18n>Somebody new</legend>
        <div class="fields">
          <mat-form-field
            ><mat-label i18n>Name</mat-label><input matInput name="pname" autocomplete="off" [(ngModel)]="name"
          /></mat-form-field>
          <mat-form-field
            ><mat-label i18n>Passphrase</mat-label
            ><input matInput type="password" name="ppass" autocomplete="new-password" [(ngModel)]="passphrase"
          /></mat-form-field>
          <mat-form-field
            ><mat-label i18n>What they may do</mat-label
            ><select matNativeControl name="prole" [(ngModel)]="role">
              @for (r of roles; track r) {
                <option [value]="r">{{ roleLabel[r] }}</option>
              }
            </select></mat-form-field
          >
          <div><button i18n class="act" type="submit" [disabled]="adding.busy()">Add this person</button></div>
        </div>
      </fieldset>
      <vs-refusal [problem]="adding.problem()" />
    </form>
    <vs-sessions />
  `,
  styles: `
    @media (max-width: 40rem) {
      th,
      td {
        display: block;
      }
    }
    td select {
      max-width: 100%;
      min-height: 44px;
      padding: 0 0.5rem;
      border: 1px solid var(--line-strong);
      background: var(--sheet);
      color: inherit;
      font: inherit;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class People {
  /** What its template says by what holds. */
  protected readonly says = {
    you: $localize` (you)`,
    whatMayDo: (name: string | number): string => $localize`What ${name} may do`,
    codeFor: (name: string | number): string => $localize`Forgot the passphrase: a code for ${name}`,
  };

  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  readonly people = input.required<readonly SignedIn[]>();
  /** Somebody was added. */
  readonly changed = output();
  protected readonly me = this.session.person;
  protected readonly mayDecide = computed(() => this.session.may('owner'));
  protected readonly roles = ROLES;
  protected readonly roleLabel = ROLE_LABELS;
  protected readonly role = signal<Role>('dyer');
  protected readonly changingRole = pageAction();
  protected readonly choosingLanguage = pageAction();
  protected readonly languages = LANGUAGES;
  protected readonly languageName = LANGUAGE_NAMES;
  protected readonly language = pageLanguage();
  protected readonly adding = pageAction();
  protected readonly changing = pageAction();
  protected readonly code = pageAction();
  protected readonly name = signal('');
  protected readonly passphrase = signal('');
  protected readonly current = signal('');
  protected readonly chosen = signal('');
  protected readonly isChanging = signal(false);
  protected readonly isChanged = signal(false);
  protected readonly given = signal<{ personId: string; code: string } | undefined>(undefined);
  private id = newId();

  /** The page is read anew, in the language chosen. */
  protected chooseLanguage(language: Language): void {
    this.choosingLanguage.run(this.api.put('/api/auth/language', { language }), () => location.reload());
  }

  protected add(): void {
    const sent = { id: this.id, name: this.name(), passphrase: this.passphrase(), role: this.role() };
    this.adding.run(this.api.post('/api/people', sent), () => {
      this.id = newId();
      this.name.set('');
      this.passphrase.set('');
      this.changed.emit();
    });
  }

  protected change(): void {
    this.isChanged.set(false);
    const sent = { current: this.current(), passphrase: this.chosen() };
    this.changing.run(this.api.put('/api/auth/passphrase', sent), () => {
      this.current.set('');
      this.chosen.set('');
      this.isChanging.set(false);
      this.isChanged.set(true);
    });
  }

  protected setRole({ id, role }: SignedIn, field: HTMLSelectElement): void {
    const chosen = field.value as Role;
    // What is refused stands as it was.
    field.value = role;
    this.changingRole.run(this.api.put('/api/people/{id}/role', { role: chosen }, id), () => {
      this.session.look().subscribe();
      this.changed.emit();
    });
  }

  protected giveCode({ id }: Person): void {
    this.given.set(undefined);
    this.code.run(this.api.post('/api/people/{id}/code', undefined, id), ({ code }) =>
      this.given.set({ personId: id, code }),
    );
  }
}
