// npm run test:mutants: puts a fixed list of small faults into the code, one at a time, and says which of them the
// unit tests notice.
import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { install, root } from './install.mjs';

/** File, what stands there, the fault, and what it would do. */
const FAULTS = [
  [
    'core/scaling/bath-note.ts',
    "['tooLittleHeat', 'tooHotForVessel']",
    "['tooLittleHeat']",
    'a vessel too hot is no caution',
  ],
  ['core/checks/vessels.ts', 'keyOf(s, i) === step.key', 's.title === step.title', 'a step is found by its title'],
  ['core/run/rescale.ts', 'const FAR_OFF = 0.5', 'const FAR_OFF = 0.4', 'a slip of the pen is rescaled to'],
  ['core/run/rescale.ts', 'factor *= r.factor', 'factor = r.factor', 'only the last rescaling counts'],
  ['core/bath/heating.ts', 'bath.toC > limitC - 2', 'bath.toC > limitC + 2', 'a burner gets hotter than it settles'],
  ['core/run/deviations.ts', 'const TIME_SHARE = 0.25', 'const TIME_SHARE = 0.35', 'a short dyeing is not told'],
  ['core/scaling/kept-plan.ts', 'w.forBatches ?? [w.batch]', 'w.forBatches ?? []', 'an older weighing is for no batch'],
  ['core/scaling/kept-plan.ts', 'i === 0 ? [] : [i - 1]', '[]', 'an older chain has no order'],
  ['core/quantity/balance.ts', 'Math.round(', 'Math.floor(', 'weights are cut instead of rounded'],
  ['core/run/ph-lock.ts', 'last.ph <= range.high', 'last.ph <= range.high + 3', 'the pH lock lets go too early'],
  ['core/scaling/step-cautions.ts', 'STEAM_FROM_C = 50', 'STEAM_FROM_C = 60', 'steam is not cautioned about at 50 °C'],
  ['core/calendar/studio-calendar.ts', 'plainTime: clock', "plainTime: '00:00'", 'the time of day is lost'],
  ['core/stock/allocate.ts', 'a.bestBefore', 'b.bestBefore', 'first expired does not go first'],
  ['core/recipe/chain.ts', 'sharePercent, 0', 'sharePercent, 1', 'parts that make 99 % are a whole'],
  ['core/scaling/bath-order.ts', 'a.liquor !== b.liquor && ', 'false && ', 'a pot is given to two liquors at once'],
  ['core/scaling/collect-baths.ts', '!through.some(', 'through.some(', 'a second dip is sized with the first'],
  ['core/scaling/bath-liquor.ts', 'standingMl) + soaked', 'standingMl)', 'what spent dyestuff keeps is not topped up'],
  ['core/bath/saved-bath.ts', 'c.grams * (1 - takenShare)', 'c.grams * takenShare', 'fibre leaves what it took'],
  [
    'core/run/pots-in-use.ts',
    'steps.every((s) => isOver',
    'steps.some((s) => isOver',
    'a pot is free after its first step',
  ],
  ['core/recipe/mordant-heat.ts', "fibres.includes('silk') ? SILK : ALUM", 'ALUM', 'silk is mordanted as hot as wool'],
  ['contract/upgrade-files.ts', "leastMin: 'minMinutes'", "leastMin: 'minMinute'", 'an older wait is lost'],
];

install();
const only = process.argv.slice(2);
let caught = 0;
let tried = 0;
for (const [file, from, to, what] of FAULTS) {
  if (only.length > 0 && !only.some((part) => file.includes(part))) continue;
  const path = join(root, file);
  const sound = readFileSync(path, 'utf8');
  if (!sound.includes(from)) {
    console.log(`GONE    ${file}: “${from}” does not stand there any more. Mend the list in scripts/mutants.mjs.`);
    process.exitCode = 1;
    continue;
  }
  tried += 1;
  try {
    writeFileSync(path, sound.replace(from, to));
    const { status } = spawnSync(
      process.execPath,
      [
        join(root, 'node_modules', 'vitest', 'vitest.mjs'),
        'run',
        '--project',
        'unit',
        '--bail',
        '1',
        'core',
        'contract',
      ],
      { cwd: root, stdio: 'ignore' },
    );
    if (status !== 0) caught += 1;
    console.log(`${status !== 0 ? 'caught ' : 'MISSED '} ${file}: ${what}`);
  } finally {
    writeFileSync(path, sound);
  }
}
console.log(`${caught} of ${tried} faults caught`);
