import { inject } from '@angular/core';
import type { CanActivateFn } from '@angular/router';
import { Router } from '@angular/router';
import { catchError, map, of } from 'rxjs';
import { Session } from '../api/session';

/** Nobody gets past the door without having come in. */
export const signedIn: CanActivateFn = (_route, state) => {
  const session = inject(Session);
  const router = inject(Router);
  const toSignIn = router.createUrlTree(['/come-in'], state.url === '/' ? {} : { queryParams: { to: state.url } });
  if (session.person()) return true;
  return session.look().pipe(
    map((authState) => (authState.person ? true : toSignIn)),
    catchError(() => of(toSignIn)),
  );
};
