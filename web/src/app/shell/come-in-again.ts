import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { ApiClient } from '../api/api-client';
import { LiveChanges } from '../api/live-query';
import { Outbox } from '../api/outbox';
import { pageAction } from '../api/page-action';
import { Session } from '../api/session';
import { RefusalNote } from '../ui/refusal';

/** The session ended while the page stayed open: nothing on it is lost, and the same person comes in again here. */
@Component({
  selector: 'vs-come-in-again',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: `@if (api.sessionEnded()) {
    <div class="lost" role="alert">
      {{ session.person()?.name }}, your session has ended. What you write at the bench is kept in this tablet; what
      stands on this page stays.
      <form (ngSubmit)="comeIn()">
        <mat-form-field
          ><mat-label>Your passphrase</mat-label
          ><input
            matInput
            type="password"
            name="passphrase"
            autocomplete="current-password"
            [(ngModel)]="passphrase" /></mat-form-field
        ><button class="act" type="submit" [disabled]="action.busy()">Come in again</button
        ><vs-refusal [problem]="action.problem()" />
      </form>
    </div>
  }`,
  styleUrl: './shell.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ComeInAgain {
  protected readonly api = inject(ApiClient);
  protected readonly session = inject(Session);
  private readonly changes = inject(LiveChanges);
  private readonly outbox = inject(Outbox);
  protected readonly action = pageAction();
  protected readonly passphrase = signal('');

  protected comeIn(): void {
    const personId = this.session.person()?.id ?? '';
    this.action.run(this.api.post('/api/auth/session', { personId, passphrase: this.passphrase() }), () => {
      this.passphrase.set('');
      this.changes.reopen();
      this.outbox.hurry();
    });
  }
}
