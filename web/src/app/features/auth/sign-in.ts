import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import type { AuthState, StudioDocument } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { pageAction } from '../../api/page-action';
import { Session } from '../../api/session';
import { newId } from '../../api/new-id';
import { RefusalNote } from '../../ui/refusal';

/** The door: come in, or on the first run make the studio. */
@Component({
  selector: 'vs-sign-in',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, RefusalNote],
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
    input[type='file'] {
      font: inherit;
      min-height: 44px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SignInPage {
  private readonly api = inject(ApiClient);
  private readonly session = inject(Session);
  private readonly router = inject(Router);
  /** Where the person was going. */
  readonly to = input<string | undefined>(undefined);
  protected readonly action = pageAction();
  protected readonly authState = signal<AuthState | undefined>(undefined);
  protected readonly personId = signal('');
  protected readonly passphrase = signal('');
  protected readonly studioName = signal('');
  protected readonly zone = signal(Intl.DateTimeFormat().resolvedOptions().timeZone);
  protected readonly name = signal('');
  private readonly firstId = computed(() => newId());

  constructor() {
    this.look();
  }

  private look(): void {
    this.action.run(this.session.look(), (authState) => this.authState.set(authState));
  }

  protected signIn(): void {
    this.action.run(
      this.api.post('/api/auth/session', { personId: this.personId(), passphrase: this.passphrase() }),
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

  protected openFile(event: Event): void {
    const file = (event.target as HTMLInputElement).files?.[0];
    void file
      ?.text()
      .then((text) => this.action.run(this.api.post('/api/auth/document', readJson(text)), () => this.look()));
  }

  private enter(): void {
    this.session
      .look()
      .subscribe(() => void this.router.navigateByUrl(this.to()?.startsWith('/') ? (this.to() ?? '/') : '/today'));
  }
}

/** What is not JSON goes to the server as it is: the contract refuses it in a plain sentence. */
function readJson(text: string): StudioDocument {
  try {
    return JSON.parse(text) as StudioDocument;
  } catch {
    return {} as StudioDocument;
  }
}
