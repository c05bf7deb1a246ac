export interface Served {
  readonly base: string;
  readonly pid: number;
  stop(signal?: NodeJS.Signals): Promise<{ code: number | null; signal: NodeJS.Signals | null; said: string }>;
}
export function serve(dataDir: string, env?: Record<string, string>): Promise<Served>;
export function temporaryFolder(name: string): { folder: string; remove(): void };
export function serveDemo(env?: Record<string, string>): Promise<Served & { dataDir: string; remove(): void }>;
