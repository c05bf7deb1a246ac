// npm run --silent measure-photo -- picture.jpg --patches patches.json
// Says what the interface would say of pieces in a photograph, as JSON: docs/measure-photo.schema.json.
import '@angular/localize/init';
import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import jpeg from 'jpeg-js';
import { PNG } from 'pngjs';
import { photoPatches } from '../contract/index';
import type { PhotoAnswer } from '../contract/index';
import { MOST_MEGAPIXELS, measurePhoto, sayPhotoRefusal } from '../core/index';
import type { Picture, Rect } from '../core/index';
import { readJson } from './read-json.mjs';

const say = (answer: PhotoAnswer): void => console.log(JSON.stringify(answer));
const refuse = (reason: string): void => say({ outcome: 'refused', reason, swatches: [] });
const round = (value: number, digits = 3): number => Number(value.toFixed(digits));

/** How large a picture says it is, before it is opened: a broken one must not take all memory. */
function megapixelsOf(file: Buffer, isPng: boolean): number | undefined {
  if (isPng) return (file.readUInt32BE(16) * file.readUInt32BE(20)) / 1e6;
  for (let at = 2; at + 9 < file.length;) {
    if (file[at] !== 0xff) return undefined;
    const marker = file[at + 1] ?? 0;
    if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker))
      return (file.readUInt16BE(at + 5) * file.readUInt16BE(at + 7)) / 1e6;
    at += 2 + file.readUInt16BE(at + 2);
  }
  return undefined;
}

function open(path: string): Picture | string {
  let file;
  try {
    file = readFileSync(path);
  } catch {
    return 'The picture can’t be read. Check that it is there.';
  }
  const isPng = file.length > 33 && file.readUInt32BE(0) === 0x89504e47;
  const isJpeg = file.length > 4 && file.readUInt16BE(0) === 0xffd8;
  if (!isPng && !isJpeg) return 'That is no JPEG and no PNG. Save the picture as one of them.';
  const megapixels = megapixelsOf(file, isPng);
  if (megapixels !== undefined && megapixels > MOST_MEGAPIXELS)
    return sayPhotoRefusal({ code: 'tooLarge', megapixels });
  try {
    return isPng ? PNG.sync.read(file) : jpeg.decode(file, { useTArray: true, maxMemoryUsageInMB: 1024 });
  } catch {
    return 'The picture can’t be opened: it is damaged, or not all of it is there. Take it from the camera again.';
  }
}

const { positionals, values } = parseArgs({
  allowPositionals: true,
  options: { patches: { type: 'string' } },
});
const [path] = positionals;
if (path === undefined || values.patches === undefined) {
  console.error('npm run --silent measure-photo -- picture.jpg --patches patches.json');
  process.exit(2);
}
const given = readJson(values.patches);
const read = photoPatches.safeParse('json' in given ? given.json : undefined);
if ('problem' in given) refuse(given.problem);
else if (!read.success)
  refuse(`The patches are not as docs/measure-photo.schema.json has them: ${read.error.issues[0]?.message}`);
else {
  const picture = open(path);
  if (typeof picture === 'string') refuse(picture);
  else {
    const areaOf = ([x, y, width, height]: readonly [number, number, number, number]): Rect => ({
      x,
      y,
      width,
      height,
    });
    const measured = measurePhoto(
      picture,
      read.data.known.map(({ rect, lab: [L, a, b] }) => ({ rect: areaOf(rect), lab: { L, a, b } })),
      read.data.wanted.map(({ name, rect }) => ({ name, rect: areaOf(rect) })),
    );
    if (!measured.ok) refuse(sayPhotoRefusal(measured.refusal));
    else
      say({
        outcome: 'measured',
        reason: '',
        swatches: measured.areas.map(({ name, lab, deltaE00Within80, evenness }) => ({
          name,
          lab: [round(lab.L), round(lab.a), round(lab.b)],
          deltaE00Within80: round(deltaE00Within80, 2),
          evenness: { meanDeltaE00: round(evenness.meanDeltaE00, 2), maxDeltaE00: round(evenness.maxDeltaE00, 2) },
        })),
      });
  }
}
