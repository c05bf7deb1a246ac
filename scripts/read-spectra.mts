// npm run --silent read-spectra -- spectra.json --illuminant D65 --observer 10
// Turns reflectance spectra into L*a*b*, as JSON: docs/read-spectra.schema.json.
import '@angular/localize/init';
import { parseArgs } from 'node:util';
import { spectraConditions, spectraFile } from '../contract/index';
import type { SpectraAnswer } from '../contract/index';
import { labOfSpectrum, readSpectrum, saySpectrumRefusal } from '../core/index';
import { readJson } from './read-json.mjs';

const say = (answer: SpectraAnswer): void => console.log(JSON.stringify(answer));

const round = (value: number): number => Number(value.toFixed(4));
const fail = (reason: string): never => {
  say({ lab: [], reason });
  process.exit(1);
};

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: { illuminant: { type: 'string', default: 'D65' }, observer: { type: 'string', default: '10' } },
});
const [path] = positionals;
if (path === undefined) {
  console.error('npm run --silent read-spectra -- spectra.json --illuminant D65 --observer 10');
  process.exit(2);
}
const under = spectraConditions.safeParse(values);
if (!under.success) fail(under.error.issues[0]?.message ?? '');
else {
  const given = readJson(path);
  const file = spectraFile.safeParse('json' in given ? given.json : undefined);
  if ('problem' in given) fail(given.problem);
  else if (!file.success) fail('The spectra are not as docs/read-spectra.schema.json has them.');
  else {
    const lab = file.data.spectra.map((reflectance, i): [number, number, number] => {
      const read = readSpectrum(file.data.wavelengths, reflectance);
      if (!read.ok) return fail(`Spectrum ${i + 1}: ${saySpectrumRefusal(read.refusal)}`);
      const { L, a, b } = labOfSpectrum(read.spectrum, under.data);
      return [round(L), round(a), round(b)];
    });
    say({ lab });
  }
}
