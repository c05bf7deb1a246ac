import { Injectable, inject } from '@angular/core';
import { ApiClient } from '../api/api-client';
import { live } from '../api/live';

/** What is in work now, read once for everything in the shell that shows or watches it. */
@Injectable()
export class TodayNow {
  private readonly api = inject(ApiClient);
  readonly today = live(['lots'], () => this.api.get('/api/today'));
}
