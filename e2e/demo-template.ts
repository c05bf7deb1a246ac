import { serveDemo } from '../scripts/serve.mjs';

/**
 * Opens the demo studio once for the whole run; each suite begins on a copy of its folder, as it would on a fresh
 * opening.
 */
export default async function setup(): Promise<() => void> {
  const demo = await serveDemo();
  await demo.stop();
  process.env['DEMO_TEMPLATE'] = demo.dataDir;
  return demo.remove;
}
