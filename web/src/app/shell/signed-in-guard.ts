import { inject } from '@angular/core';
import type { ActivatedRouteSnapshot, CanActivateFn } from '@angular/router';
import { Router } from '@angular/router';
import { catchError, map, of } from 'rxjs';
import { Session } from '../api/session';

/** Fetches the programs of a place while it is asked who is in: nearly always somebody is. */
function fetchMeanwhile(route: ActivatedRouteSnapshot | null): void {
  for (let at = route; at; at = at.firstChild) {
    const fetched = at.routeConfig?.loadComponent?.();
    // Where it can’t be fetched, the router finds that out again and says so.
    if (fetched instanceof Promise) fetched.catch(() => undefined);
  }
}

/** Nobody gets past the door without having come in. */
export const signedIn: CanActivateFn = (route, state) => {
  const session = inject(Session);
  const router = inject(Router);
  const toSignIn = router.createUrlTree(['/come-in'], state.url === '/' ? {} : { queryParams: { to: state.url } });
  if (session.person()) return true;
  fetchMeanwhile(route);
  return session.look().pipe(
    map((authState) => (authState.person ? true : toSignIn)),
    catchError(() => of(toSignIn)),
  );
};
