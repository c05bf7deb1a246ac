import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { PhotoAnswer, SpectraAnswer } from '@vestigia/contract';
import jpeg from 'jpeg-js';
import { afterAll, describe, expect, it } from 'vitest';
import { IN_GOOD_LIGHT, renderPhoto } from '../core/photo/render-photo.fixture';

const root = join(import.meta.dirname, '..');
const folder = mkdtempSync(join(tmpdir(), 'vestigia-measure-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const write = (name: string, content: string | Uint8Array): string => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
const run = <T>(script: string, ...args: string[]): T => {
  const { stdout } = spawnSync(
    process.execPath,
    [join(root, 'node_modules', 'tsx', 'dist', 'cli.mjs'), join(root, 'scripts', script), ...args],
    { cwd: root, encoding: 'utf8' },
  );
  return JSON.parse(stdout) as T;
};

describe('commands that measure without the interface', () => {
  const card = { rect: { x: 10, y: 10, width: 60, height: 60 }, lab: { L: 62, a: 0, b: 0 } };
  const hank = { rect: { x: 90, y: 90, width: 80, height: 80 }, lab: { L: 70, a: -3, b: 48 } };
  const patches = write(
    'patches.json',
    JSON.stringify({
      known: [{ rect: [10, 10, 60, 60], lab: [62, 0, 0] }],
      wanted: [{ name: 'hank', rect: [90, 90, 80, 80] }],
    }),
  );
  const picture = renderPhoto(
    { width: 200, height: 200 },
    [card, hank],
    { ...IN_GOOD_LIGHT, kelvin: 5600, noise: 2 },
    1,
  );
  const photo = write('photo.jpg', jpeg.encode({ ...picture, data: Buffer.from(picture.data) }, 90).data);

  it('a photograph: what colour a piece has, and how sure that is', () => {
    const answer = run<PhotoAnswer>('measure-photo.mts', photo, '--patches', patches);
    expect([answer.outcome, answer.swatches.map((s) => s.name)]).toEqual(['measured', ['hank']]);
    const [L = 0, a = 0, b = 0] = answer.swatches[0]?.lab ?? [];
    expect(Math.hypot(L - 70, a + 3, b - 48)).toBeLessThan(6);
    expect(answer.swatches[0]?.deltaE00Within80).toBeGreaterThan(0);
  });
  it.each<[string, () => string, RegExp]>([
    ['not a picture', () => write('text.jpg', 'no picture'), /no JPEG and no PNG/],
    [
      'cut off',
      () => write('cut.jpg', jpeg.encode({ ...picture, data: Buffer.from(picture.data) }, 90).data.subarray(0, 180)),
      /damaged/,
    ],
    ['not there', () => join(folder, 'nowhere.jpg'), /can’t be read/],
  ])('a file that is %s is refused, with what to do', (_name, file, said) => {
    const answer = run<PhotoAnswer>('measure-photo.mts', file(), '--patches', patches);
    expect([answer.outcome, answer.swatches]).toEqual(['refused', []]);
    expect(answer.reason).toMatch(said);
  });
  it('spectra: L*a*b* under the light asked for; what is no spectrum says why', () => {
    const wavelengths = Array.from({ length: 16 }, (_, i) => 400 + i * 20);
    const grey = write('grey.json', JSON.stringify({ wavelengths, spectra: [wavelengths.map(() => 0.5)] }));
    const { lab } = run<SpectraAnswer>('read-spectra.mts', grey, '--illuminant', 'A', '--observer', '2');
    expect(lab[0]?.map((v) => v.toFixed(2).replace('-0.00', '0.00'))).toEqual(['76.07', '0.00', '0.00']);
    const over = write('over.json', JSON.stringify({ wavelengths, spectra: [wavelengths.map(() => 50)] }));
    expect(run<SpectraAnswer>('read-spectra.mts', over).reason).toMatch(/Spectrum 1: .*divide by 100/);
    expect(run<SpectraAnswer>('read-spectra.mts', write('bad.json', 'no json')).reason).toMatch(/no JSON/);
  });
});
