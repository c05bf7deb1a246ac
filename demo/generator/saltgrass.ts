/** The invented studio's furniture: what it owns, dyes with and promises. Everything here is made up. */
export const PEOPLE = [
  { name: 'Corin Ashlock', role: 'dyer', passphrase: 'mud on the slipway' },
  { name: 'Isaby Fennimore', role: 'owner', passphrase: 'heron at low tide' },
  { name: 'Wenna Tidewell', role: 'owner', passphrase: 'seven wet hanks' },
] as const;

export const SETTINGS = {
  name: 'Saltgrass Dyehouse',
  zone: 'Europe/London',
  signInNote:
    'A studio to try things in. Corin: mud on the slipway · Isaby: heron at low tide · Wenna: seven wet hanks',
  balanceName: 'bench balance',
  balanceResolutionG: 0.1,
  balanceCapacityG: 3000,
  volumeSystem: 'imperial' as const,
  currency: 'GBP',
  provenNeeds: 3,
  roomC: 16,
  coldWaterC: 10,
  hotWaterC: 52,
  liftLimitKg: 16,
  energyMinorPerKwh: 27,
  waterMinorPerM3: 380,
  hourMinor: 1600,
  practice: {
    mordantOnTannin: 'none',
    aluminium: 'alum15',
    mordantHeat: 'hot',
    tartar: 'with',
    rinseMordant: 'no',
    doseBy: 'fibre',
    form: 'dried',
    straining: 'twice',
    finish: 'overnight',
    rinse: 'cure',
    sun: 'never',
    endPoint: 'eye',
    vessel: 'inert',
    measuring: 'balance',
    modifiers: 'crystals',
  },
};

export const HEAT_SOURCES = [
  { name: 'Gas ring', powerW: 7500, efficiencyPercent: 45, note: 'Bottle in the yard.' },
  { name: 'Hob, both plates', powerW: 3600, efficiencyPercent: 65, note: '' },
  { name: 'Hot plate', powerW: 1500, efficiencyPercent: 60, note: 'Slow with anything big.' },
] as const;

export const VESSELS = [
  {
    name: 'Long pan',
    metal: 'stainless',
    workingMl: 28_000,
    emptyG: 3400,
    heat: 'Hob, both plates',
    note: 'Two burners wide.',
  },
  {
    name: 'Tall kettle',
    metal: 'stainless',
    workingMl: 48_000,
    emptyG: 6100,
    heat: 'Gas ring',
    note: 'Never lifted full.',
  },
  { name: 'Chipped enamel', metal: 'enamel', workingMl: 16_000, emptyG: 2900, heat: 'Hot plate', note: '' },
  {
    name: 'Dented pot',
    metal: 'aluminium',
    workingMl: 32_000,
    heldIron: true,
    heat: 'Hob, both plates',
    note: 'Once held iron, before our time. Scrubbed twice.',
  },
  {
    name: 'Iron cauldron',
    metal: 'iron',
    workingMl: 24_000,
    heldIron: true,
    emptyG: 14_000,
    heat: 'Gas ring',
    note: 'Only where iron is wanted.',
  },
  {
    name: 'Ribbon pan',
    metal: 'stainless',
    workingMl: 6_000,
    emptyG: 900,
    heat: 'Hot plate',
    note: 'For silk and strike-offs.',
  },
] as const;

export const WATERS = [
  { name: 'Tap', ph: 7.5, hardnessDh: 14, ironMgPerL: 0.05, note: 'Hard. Strip test in spring and autumn.' },
  { name: 'Rain barrel', ph: 6.3, hardnessDh: 1, ironMgPerL: null, note: 'Runs low in August.' },
] as const;
