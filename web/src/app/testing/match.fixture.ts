import { lotFixture } from './lot.fixture';

const figure = (value: number, unit: string) => ({ value, unit, decimals: 0, working: [] });
/** A plan of 400 g of rug wool in one bath of weld, 50 %, as the match reads it. */
export const WELD_PLAN = {
  ...lotFixture().plan,
  liquorRatio: 30,
  groups: [{ key: 'g', baseId: 'hanks', baseName: 'Rug wool', fibre: 'wool', part: '', partName: '' }],
  batches: [{ number: 1, vesselId: 'pan', vesselName: 'Pan', metal: 'stainless', pieces: 4, wof: figure(400, 'g') }],
  materials: [{ materialId: 'hanks', picks: [{ stockLotId: 'bale-1', amount: 400_000 }] }],
  steps: [
    {
      index: 0,
      kind: 'dye',
      title: 'Dye',
      durationMin: 60,
      temperatureC: 85,
      course: [],
      weighings: [
        {
          batch: 1,
          forBatches: [1],
          materialId: 'weld',
          materialName: 'Weld',
          measure: 'weight',
          target: figure(200, 'g'),
          picks: [{ stockLotId: 'jar-b', amount: 200_000 }],
        },
      ],
    },
  ],
};
