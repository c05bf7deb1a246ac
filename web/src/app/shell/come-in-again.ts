import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { ApiClient } from '../api/api-client';
import { LiveChanges } from '../api/live-query';
import { Outbox } from '../api/outbox';
import { pageAction } from '../api/page-action';
import { Session } from '../api/session';
import { ConsoleCode } from '../ui/console-code';
import { RefusalNote } from '../ui/refusal';

/** The session ended while the page stayed open: nothing on it is lost, and the same person comes in again here. */
@Component({
  selector: 'vs-come-in-again',
  imports: [ConsoleCode, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  template: `@if (api.sessionEnded()) {
    <div class="lost" role="alert">
      <ng-container i18n
        >{{ session.person()?.name }}, your session has ended. What you write at the bench is kept in this tablet; what
        stands on this page stays.</ng-container
      >
      <form (ngSubmit)="comeIn()">
        <mat-form-field
          ><mat-label i18n>Your passphrase</mat-label
          ><input matInput type="password" name="passphrase" autocomplete="current-password" [(ngModel)]="passphrase"
        /></mat-form-field>
        <vs-console-code [problem]="action.problem()" [(code)]="consoleCode" />
        <button i18n class="act" type="submit" [disabled]="action.busy()">Come in again</button
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
  protected readonly consoleCode = signal<string | undefined>(undefined);

  protected comeIn(): void {
    const personId = this.session.person()?.id ?? '';
    const sent = { personId, passphrase: this.passphrase(), consoleCode: this.consoleCode() };
    this.action.run(this.api.post('/api/auth/session', sent), () => {
      this.passphrase.set('');
      this.consoleCode.set(undefined);
      this.changes.reopen();
      this.outbox.hurry();
    });
  }
}
