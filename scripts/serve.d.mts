export interface Ending {
  readonly code: number | null;
  readonly signal: NodeJS.Signals | null;
  readonly said: string;
}
export interface Served {
  readonly base: string;
  readonly pid: number;
  /** What it said and how it ended, once it has. */
  readonly ended: Promise<Ending>;
  stop(signal?: NodeJS.Signals): Promise<Ending>;
}
export function serve(dataDir: string, env?: Record<string, string>): Promise<Served>;
export function temporaryFolder(name: string): { folder: string; remove(): void };
export function serveDemo(env?: Record<string, string>): Promise<Served & { dataDir: string; remove(): void }>;
