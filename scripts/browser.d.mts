import type { Browser } from 'puppeteer-core';

export const chromiumPath: string | undefined;
export function launch(more?: readonly string[]): Promise<Browser>;
