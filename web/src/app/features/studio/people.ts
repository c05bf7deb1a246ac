import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { Person } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { Session } from '../../api/session';
import { RefusalNote } from '../../ui/refusal';

/** Who works here: adding somebody, one’s own passphrase, and a code for whoever forgot theirs. */
@Component({
  selector: 'vs-people',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: `
    <h2>People</h2>
    <table class="ledger">
      <caption class="small">
        Who comes in here
      </caption>
      <tbody>
        @for (p of people(); track p.id) {
          <tr>
            <th scope="row">{{ p.name }}{{ p.id === me()?.id ? ' (you)' : '' }}</th>
            <td>
              @if (p.id === me()?.id) {
                <button class="plain" type="button" (click)="isChanging.set(!isChanging())">
                  Change your passphrase
                </button>
              } @else {
                <button
                  class="plain"
                  type="button"
                  [disabled]="code.busy()"
                  [attr.aria-label]="'Forgot the passphrase: a code for ' + p.name"
                  (click)="giveCode(p)"
                >
                  Forgot the passphrase
                </button>
              }
              @if (given(); as g) {
                @if (g.personId === p.id) {
                  <p role="status">
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
    <vs-refusal [problem]="code.problem()" />
    @if (isChanging()) {
      <form (ngSubmit)="change()">
        <fieldset>
          <legend>Your passphrase</legend>
          <div class="fields">
            <mat-form-field
              ><mat-label>Your passphrase now</mat-label
              ><input matInput type="password" name="current" autocomplete="current-password" [(ngModel)]="current"
            /></mat-form-field>
            <mat-form-field
              ><mat-label>The one you choose</mat-label
              ><input matInput type="password" name="chosen" autocomplete="new-password" [(ngModel)]="chosen"
            /></mat-form-field>
            <div><button class="act" type="submit" [disabled]="changing.busy()">Change it</button></div>
          </div>
        </fieldset>
        <vs-refusal [problem]="changing.problem()" />
      </form>
    }
    @if (isChanged()) {
      <p role="status">Your passphrase is changed. Other tablets on which you were in ask for the new one.</p>
    }
    <form (ngSubmit)="add()">
      <fieldset>
        <legend>Somebody new</legend>
        <div class="fields">
          <mat-form-field
            ><mat-label>Name</mat-label><input matInput name="pname" autocomplete="off" [(ngModel)]="name"
          /></mat-form-field>
          <mat-form-field
            ><mat-label>Passphrase</mat-label
            ><input matInput type="password" name="ppass" autocomplete="new-password" [(ngModel)]="passphrase"
          /></mat-form-field>
          <div><button class="act" type="submit" [disabled]="adding.busy()">Add this person</button></div>
        </div>
      </fieldset>
      <vs-refusal [problem]="adding.problem()" />
    </form>
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class People {
  private readonly api = inject(ApiClient);
  readonly people = input.required<readonly Person[]>();
  /** Somebody was added. */
  readonly changed = output();
  protected readonly me = inject(Session).person;
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

  protected add(): void {
    const sent = { id: this.id, name: this.name(), passphrase: this.passphrase() };
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

  protected giveCode({ id }: Person): void {
    this.given.set(undefined);
    this.code.run(this.api.post('/api/people/{id}/code', undefined, id), ({ code }) =>
      this.given.set({ personId: id, code }),
    );
  }
}
