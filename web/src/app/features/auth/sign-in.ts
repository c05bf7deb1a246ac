import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { AuthState, OpenedDocument } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { Session } from '../../api/session';
import { newId } from '../../api/new-id';
import { ConsoleCode } from '../../ui/console-code';
import { RefusalNote } from '../../ui/refusal';
import { BringBack } from './bring-back';
import { ScrollRegion } from '../../ui/scroll-region';

/** The door: come in, or on the first run make the studio. */
@Component({
  selector: 'vs-sign-in',
  imports: [ScrollRegion, BringBack, ConsoleCode, FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
  templateUrl: './sign-in.html',
  styles: `
    main {
      max-width: 34rem;
      margin: 0 auto;
      padding: 12vh 1.5rem 3rem;
    }
    .product {
      font-weight: 800;
      letter-spacing: 0.02em;
      border-bottom: 3px solid var(--ink);
      padding-bottom: 0.4rem;
      margin-bottom: 2.5rem;
    }
    .note {
      border: 2px dashed var(--line-strong);
      padding: 0.75rem 1rem;
    }
    .codes td {
      font-size: 1.4rem;
      letter-spacing: 0.06em;
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignInPage {
  /** What its template says by what holds. */
  protected readonly says = {
    byPassphrase: $localize`I have a passphrase`,
    byCode: $localize`I was given a code`,
  };

  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  private readonly router = inject(Router);
  /** Where the person was going. */
  readonly to = input<string | undefined>(undefined);
  protected readonly action = pageAction();
  protected readonly authState = signal<AuthState | undefined>(undefined);
  protected readonly personId = signal('');
  protected readonly passphrase = signal('');
  /** Somebody of a studio that was brought back comes in by a code the first time. */
  protected readonly hasCode = signal(false);
  protected readonly code = signal('');
  protected readonly consoleCode = signal<string | undefined>(undefined);
  protected readonly codes = signal<OpenedDocument['codes']>([]);
  protected readonly studioName = signal('');
  protected readonly zone = signal(Intl.DateTimeFormat().resolvedOptions().timeZone);
  protected readonly name = signal('');
  private readonly firstId = computed(() => newId());

  constructor() {
    this.look();
  }

  private look(): void {
    this.action.run(this.session.look(), (authState) => {
      // Whoever is in already, after this page was read anew in their language, goes on.
      if (authState.person) this.goOn();
      else this.authState.set(authState);
    });
  }

  protected signIn(): void {
    const [personId, passphrase, consoleCode] = [this.personId(), this.passphrase(), this.consoleCode()];
    this.action.run(
      this.hasCode()
        ? this.api.post('/api/auth/passphrase', { personId, code: this.code(), passphrase })
        : this.api.post('/api/auth/session', { personId, passphrase, consoleCode }),
      () => this.enter(),
    );
  }

  protected open(): void {
    const body = {
      name: this.studioName(),
      zone: this.zone(),
      person: { id: this.firstId(), name: this.name(), passphrase: this.passphrase() },
    };
    this.action.run(this.api.post('/api/auth/studio', body), () => this.enter());
  }

  protected showCodes(codes: OpenedDocument['codes']): void {
    this.codes.set(codes);
    // Everybody of the file had a passphrase in it: there is nothing to be written down.
    if (codes.length === 0) this.look();
  }

  protected codesWritten(): void {
    this.codes.set([]);
    this.hasCode.set(true);
    this.look();
  }

  protected print(): void {
    window.print();
  }

  private enter(): void {
    this.session.look().subscribe(() => this.goOn());
  }

  private goOn(): void {
    void this.router.navigateByUrl(this.to()?.startsWith('/') ? (this.to() ?? '/') : '/today');
  }
}
