import { APP_BASE_HREF } from '@angular/common';
import { provideHttpClient } from '@angular/common/http';
import { provideBrowserGlobalErrorListeners, provideZonelessChangeDetection } from '@angular/core';
import { MAT_FORM_FIELD_DEFAULT_OPTIONS } from '@angular/material/form-field';
import { bootstrapApplication } from '@angular/platform-browser';
import { TitleStrategy, provideRouter, withComponentInputBinding, withPreloading } from '@angular/router';
import { cacheForOffline } from './app/api/offline-cache';
import { routes } from './app/routes';
import { PageTitle } from './app/services/page-title';
import { FetchAhead } from './app/shell/fetch-ahead';
import { Root } from './app/shell/root';
import { pageLanguage } from './app/api/page-language';
import { speakAs } from '@vestigia/core';

speakAs(pageLanguage);

bootstrapApplication(Root, {
  providers: [
    provideZonelessChangeDetection(),
    // Each language lies in a folder of its own; addresses of pages are the same in all.
    { provide: APP_BASE_HREF, useValue: '/' },
    provideBrowserGlobalErrorListeners(),
    provideHttpClient(),
    provideRouter(routes, withComponentInputBinding(), withPreloading(FetchAhead)),
    { provide: TitleStrategy, useExisting: PageTitle },
    { provide: MAT_FORM_FIELD_DEFAULT_OPTIONS, useValue: { appearance: 'outline', subscriptSizing: 'dynamic' } },
  ],
})
  .then(cacheForOffline)
  .catch((error: unknown) => console.error(error));
