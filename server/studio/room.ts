import type { Balance, Practice, Room, Vessel } from '@vestigia/core';
import type { WaterSource } from '@vestigia/contract';
import { asc } from 'drizzle-orm';
import type { Db } from '../db/database';
import { heatSources, studio, vessels, waters } from '../db/schema';
import { notFound } from '../shared/problem';

/** The room as scaling sees it: pots with their burners, waters, the balance, and how the house does things. */
export interface StudioRoom {
  readonly balance: Balance;
  readonly room: Room;
  readonly house: Practice;
  readonly provenNeeds: number;
  readonly vessels: readonly Vessel[];
  readonly waters: readonly Omit<WaterSource, 'version' | 'note'>[];
}

export async function readRoom(db: Db): Promise<StudioRoom> {
  const [row] = await db.select().from(studio);
  if (!row) throw notFound('studio');
  const sources = await db.select().from(heatSources);
  const pots = await db.select().from(vessels).orderBy(asc(vessels.workingMl));
  const waterRows = await db
    .select({
      id: waters.id,
      name: waters.name,
      ph: waters.ph,
      hardnessDh: waters.hardnessDh,
      ironMgPerL: waters.ironMgPerL,
    })
    .from(waters)
    .orderBy(asc(waters.name));
  return {
    // A step of 0.1 g is stored in single precision; the balance shows no such dust.
    balance: {
      name: row.balanceName,
      resolutionG: Number(row.balanceResolutionG.toPrecision(6)),
      capacityG: row.balanceCapacityG,
      ...(row.fineBalance ? { fine: row.fineBalance } : {}),
    },
    room: {
      roomC: row.roomC,
      coldWaterC: row.coldWaterC,
      hotWaterC: row.hotWaterC,
      liftLimitKg: row.liftLimitKg,
      energyMinorPerKwh: row.energyMinorPerKwh,
    },
    house: row.practice,
    provenNeeds: row.provenNeeds,
    waters: waterRows.map((w) => ({ ...w, ph: tidy(w.ph), hardnessDh: tidy(w.hardnessDh) })),
    vessels: pots.map(({ heatSourceId, version: _version, note: _note, ...v }) => ({
      ...v,
      heatSource: sources.find((s) => s.id === heatSourceId) ?? null,
    })),
  };
}

const tidy = (value: number | null): number | null => (value === null ? null : Number(value.toPrecision(6)));
