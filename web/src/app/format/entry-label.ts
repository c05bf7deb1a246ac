import type { LotDetail, RunEntryView } from '@vestigia/contract';
import type { ShadeOf, SolutionTaken } from '@vestigia/core';
import {
  trimZeros,
  formatTemperature,
  countLabel,
  BATH_MOVE_LABELS,
  STRAIN_LABELS,
  formatAmount,
  formatVolume,
  formatWeight,
  sayAlone,
  sayMinutes,
  sayPh,
} from '@vestigia/core';

const READ_BY = {
  hand: '',
  instrument: $localize`, by the instrument`,
  simulated: $localize`, by a simulated instrument`,
  strip: $localize`, by strip`,
  card: $localize`, from the bench card`,
} as const;
const by = (entry: RunEntryView): string => READ_BY[entry.detail?.readBy ?? 'hand'];
const when = (entry: RunEntryView): string => (entry.detail?.about ? ` (${entry.detail.about})` : '');

const sayTaken = ({ takenMl, made }: SolutionTaken, tag: string): string =>
  $localize`, as ${formatVolume(takenMl)} of ${made ? $localize`a solution of ${formatWeight(made.dissolvedG)} in ${formatVolume(made.madeUpMl)}` : tag}`;

/** An entry written down this much later than it happened was told afterwards. */
const TOLD_LATER_MS = 10 * 60_000;
/** Whether it was told afterwards: from a card, a notebook or from memory. */
export const toldLater = ({ at, recordedAt }: Pick<RunEntryView, 'at' | 'recordedAt'>): boolean =>
  Date.parse(recordedAt) - Date.parse(at) > TOLD_LATER_MS;

const late = (entry: RunEntryView): string =>
  entry.detail?.late ? $localize` (told after the lot was closed: ${entry.detail.late})` : '';

/** One bench entry as a dyer would read it back. */
export const entryLabel = (entry: RunEntryView, lot: Pick<LotDetail, 'stockLots' | 'plan'>): string =>
  sayEntry(entry, lot) + late(entry);

const sayOf = (plan: LotDetail['plan'], of: ShadeOf): string => sayAlone(plan, of) || $localize`all of it`;

function sayEntry(entry: RunEntryView, lot: Pick<LotDetail, 'stockLots' | 'plan'>): string {
  const textPart = entry.text ? `: ${entry.text}` : '';
  switch (entry.kind) {
    case 'start':
      return $localize`begun${entry.detail?.outOfOrder ? $localize` out of order` : ''}${entry.detail?.vessels ? $localize` in ${entry.detail.vessels.map((v) => v.vesselName).join($localize` and `)}` : ''}${when(entry)}${textPart}`;
    case 'finish':
      return $localize`finished${when(entry)}${textPart}`;
    case 'skip':
      return $localize`skipped${textPart}`;
    case 'cancel':
      return $localize`lot called off${textPart}`;
    case 'note':
      return `${entry.detail?.deviation ? $localize`otherwise than planned: ` : ''}${entry.detail?.next ? $localize`next time: ` : ''}${entry.detail?.of ? `${sayOf(lot.plan, entry.detail.of)}: ` : ''}${entry.text ?? ''}`;
    case 'pause':
      return $localize`paused${textPart}`;
    case 'resume':
      return $localize`gone on with`;
    case 'redo':
      return $localize`to be done over${entry.detail?.keepsWeighings ? $localize` with what was weighed` : ''}${textPart}`;
    case 'takeBack':
      return $localize`taken back: what was written before it was a slip${textPart}`;
    case 'ph':
      return `${sayPh(entry.detail.ph)}${entry.detail.totalDose ? $localize` with ${trimZeros(entry.detail.totalDose, 3)} ${entry.detail.unit ?? 'ml'} in` : ''}${by(entry)}`;
    case 'sample':
      return $localize`${entry.detail.sampleOf ?? 'piece'} at ${Math.round(entry.detail.depth * 100)} % of the depth wanted${by(entry)}`;
    case 'bath':
      return `${BATH_MOVE_LABELS[entry.detail.bath.kind]}: ${formatAmount(Math.round(entry.detail.bath.ml * 1000), 'volume')}`;
    case 'add': {
      const { name, batch, guessed, quantityText, amount, measure } = entry.detail;
      const how = amount === undefined ? quantityText : formatAmount(amount, measure);
      return $localize`${name} put in as well: ${guessed ? $localize`about ` : ''}${how}, batch ${batch}${textPart}`;
    }
    case 'moved': {
      const to = [...(entry.detail.vessels ?? []).map((v) => v.vesselName), entry.detail.water?.name ?? ''];
      return $localize`moved to ${to.filter((t) => t !== '').join($localize` and `)}${textPart}`;
    }
    case 'pieces': {
      const { change, batch } = entry.detail;
      return $localize`${countLabel(Math.abs(change), $localize`piece`)} ${change > 0 ? $localize`put into` : $localize`taken out of`} batch ${batch}${textPart}`;
    }
    case 'extra': {
      const { title, minutes, temperatureC } = entry.detail;
      const how = [
        minutes === undefined ? '' : sayMinutes(minutes),
        temperatureC === undefined ? '' : `${formatTemperature(temperatureC)}`,
      ];
      return $localize`done though not in the chain: ${[title, ...how.filter((h) => h !== '')].join(', ')}${textPart}`;
    }
    case 'pulls':
      return $localize`${countLabel(entry.detail.pullMinutes.length, 'pull')} planned, at ${entry.detail.pullMinutes.join(', ')} min`;
    case 'pull':
      return $localize`piece ${entry.detail.piece} pulled`;
    case 'zone': {
      const { zone, did, piece, ml } = entry.detail;
      const title = lot.plan.steps[entry.stepIndex]?.zones?.find((z) => z.zone === zone)?.title ?? $localize`a zone`;
      const how = { in: $localize`is in`, done: $localize`is done`, left: $localize`left out` }[did];
      return `“${title}”${piece === undefined ? '' : $localize` on piece ${piece}`} ${how}${ml === undefined ? '' : $localize` with ${ml} ml`}${textPart}`;
    }
    case 'strained':
      return entry.detail.way === 'bagOut' ? $localize`the bag lifted out` : STRAIN_LABELS[entry.detail.way];
    case 'leaveOut': {
      const { batch, materialId } = entry.detail;
      const name = lot.plan.materials.find((m) => m.materialId === materialId)?.name ?? $localize`a weighing`;
      return $localize`${name} left out, batch ${batch}${textPart}`;
    }
    case 'rescale':
      return $localize`doses rescaled${textPart}`;
    case 'hand':
      return $localize`handed over to ${entry.detail.toPerson.name}`;
    case 'temperature':
      return `${formatTemperature(entry.temperatureC)}${textPart}${entry.detail?.heldMin === undefined ? '' : $localize`, held ${sayMinutes(entry.detail.heldMin)}`}${by(entry)}`;
    case 'weigh': {
      const { weighing } = entry;
      const material = lot.plan.materials.find((m) => m.materialId === weighing.materialId);
      const tag = lot.stockLots.find((j) => j.id === weighing.stockLotId)?.tag ?? '';
      const solution = entry.detail?.solution;
      const from = solution ? sayTaken(solution, tag) : tag === '' ? '' : $localize` from ${tag}`;
      return $localize`${formatAmount(weighing.amount, material?.measure ?? 'weight')} ${material?.name ?? ''}${from}, batch ${weighing.batch}${entry.detail?.more ? $localize`, a portion` : ''}${entry.detail?.notDry ? `, ${entry.detail.notDry}` : ''}${by(entry)}`;
    }
  }
}
