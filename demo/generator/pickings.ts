import type { StudioFile } from '@vestigia/contract';
import type { Random } from './random';

const MG_IN_G = 1000;
const BUCKET_G = 2000;
const BAG_MG = 14_000;
const LONGEST_MIN = 300;
/** Nobody picks longer in a day. */
const MOST_MIN = 900;

/** Grams in an hour of one pair of hands: leaves and whole plants come quick, flower heads slow. */
const paceOf = (material: string): number =>
  /head|flower/i.test(material) ? 420 : /bark|root|hull/i.test(material) ? 900 : 1500;

/** Who picked each harvest, and how long it took them: what an hour gives is read from it. */
export function addPickings(doc: StudioFile, { random }: { readonly random: Random }): void {
  const helpers = [...doc.people.map((p) => p.name.split(' ')[0] ?? ''), 'Wren'];
  doc.pickings = doc.movements
    .filter((m) => m.kind === 'gather')
    .map((m) => {
      const material = doc.materials.find((t) => t.id === doc.stockLots.find((s) => s.id === m.stockLotId)?.materialId);
      const grams = m.amount / MG_IN_G;
      const minutes = (grams / paceOf(material?.name ?? '')) * 60 * random.between(0.8, 1.3);
      const hands = Math.min(3, 1 + Math.floor(minutes / LONGEST_MIN));
      const portions = Math.max(1, Math.ceil(grams / BUCKET_G));
      return {
        id: random.id(Date.parse(m.at)),
        stockLotId: m.stockLotId,
        movementId: m.id,
        pickers: helpers.slice(0, hands),
        minutesEach: Math.min(MOST_MIN, Math.max(5, Math.round(minutes / hands / 5) * 5)),
        portions,
        tareMg: portions * BAG_MG,
        guessed: false,
        pickedWith: /head|flower/i.test(material?.name ?? '') && random.next() < 0.3 ? 'some green' : '',
        note: '',
        byId: m.byId,
        at: m.at,
      };
    });
}
