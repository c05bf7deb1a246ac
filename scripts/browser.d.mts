import type { Browser } from 'puppeteer-core';

export const chromiumPath: string | undefined;
export function launch(): Promise<Browser>;
