import { CARD_PATCHES, FASTNESS_KINDS, FASTNESS_PLACES, GREY_GRADES, SLOTS_A_PAGE } from '@vestigia/core';
import { z } from 'zod';
import { id, isoDate, isoTime, lab, lineOf, nameOf, noteOf, numberIn, personRef, version, labUnder } from './common';
import { shadeOf } from './readings';

/** What a shade was made with, as it stands beside a snippet. */
export const madeWith = z.object({
  base: z.string(),
  fibre: z.string(),
  dyestuffs: z.array(z.string()).readonly(),
  mordants: z.array(z.string()).readonly(),
  modifiers: z.array(z.string()).readonly(),
  part: z.string(),
  dip: z.int().nullable(),
  minutes: z.number().nullable(),
  materialIds: z.array(id).readonly(),
});

const page = z
  .int({ error: () => $localize`A page is a whole number.` })
  .min(1)
  .max(10_000);
const slot = z
  .int({ error: () => $localize`A place on the page is a whole number from 1 to ${SLOTS_A_PAGE}.` })
  .min(1)
  .max(SLOTS_A_PAGE, { error: () => $localize`A page has ${SLOTS_A_PAGE} places.` });

export const newSwatch = z.object({
  id,
  name: nameOf(() => $localize`The name`),
  /** Of a lot: what it was made with is written already, and its colour is the newest that settled. */
  lotId: id.nullable(),
  of: shadeOf.nullable().default(null),
  /** Of no lot: what is known of it. */
  lab: labUnder.nullable().default(null),
  base: lineOf(() => $localize`The base`).default(''),
  dyestuffs: lineOf(() => $localize`The dyestuff`).default(''),
  mordants: lineOf(() => $localize`The mordant`).default(''),
  /** `null`: the next free place. */
  place: z.object({ page, slot }).nullable(),
  note: noteOf(() => $localize`The note`),
});
export type NewSwatch = z.input<typeof newSwatch>;
export type ReadNewSwatch = z.infer<typeof newSwatch>;

export const swatchEdit = z.object({ version, page, slot, note: noteOf(() => $localize`The note`) });
export type SwatchEdit = z.infer<typeof swatchEdit>;

export const swatch = z
  .object({
    id,
    version,
    name: z.string(),
    page: z.int(),
    slot: z.int(),
    lot: z.object({ id, tag: z.string(), colourway: z.string() }).nullable(),
    of: shadeOf.nullable(),
    lab: labUnder.nullable(),
    madeWith,
    note: z.string(),
    at: isoTime,
    by: personRef,
  })
  .meta({ id: 'Swatch' });
export type Swatch = z.infer<typeof swatch>;

/** A colour the record knows, and where it is told. */
export const knownColour = z
  .object({
    kind: z.enum(['lot', 'colourway', 'swatch', 'strip']),
    /** Of what is told of: the lot, the colourway, the swatch, the trial. */
    id,
    title: z.string(),
    detail: z.string(),
    lab: labUnder,
  })
  .meta({ id: 'KnownColour' });
export type KnownColour = z.infer<typeof knownColour>;
/** What a jar gave when a lot that was read took from it last: the lot's shade, on its base. */
export const jarGave = z
  .object({ stockLotId: id, materialId: id, lotId: id, tag: z.string(), base: z.string(), lab: labUnder })
  .meta({ id: 'JarGave' });
export type JarGave = z.infer<typeof jarGave>;
export const nearColour = knownColour.extend({ deltaE: z.number() });
export type NearColour = z.infer<typeof nearColour>;

export const paletteSheet = z.object({
  title: nameOf(() => $localize`The name of the palette`),
  colours: z
    .array(
      z.object({
        name: nameOf(() => $localize`The name`),
        detail: lineOf(() => $localize`What is said of it`),
        lab: labUnder,
      }),
    )
    .min(1, { error: () => $localize`There is nothing in the palette yet. Choose a colour.` })
    .max(60, { error: () => $localize`A palette has 60 colours at most.` }),
});
export type PaletteSheet = z.input<typeof paletteSheet>;

/** The pieces of one lot that were read by themselves, by their newest reading that settled. */
export const readPieces = z
  .object({
    lotId: id,
    tag: z.string(),
    /** Finished pieces of it that stand on the shelf, g; single ones are not followed once they are kept. */
    onShelfG: z.number(),
    pieces: z.array(z.object({ mark: z.string(), lab: labUnder })),
  })
  .meta({ id: 'ReadPieces' });
export type ReadPieces = z.infer<typeof readPieces>;

/** A ladder to print: strips of swatches about a colour, to hold a piece against. */
export const ladderSheet = z.object({ title: nameOf(() => $localize`The name`), lab: labUnder });
export type LadderSheet = z.infer<typeof ladderSheet>;

/** Tags for sets of pieces that match. */
export const setTags = z.object({
  lotTag: nameOf(() => $localize`The lot`),
  colourway: nameOf(() => $localize`The colourway`),
  /** The marks of each set’s pieces. */
  sets: z
    .array(z.array(lineOf(() => $localize`The mark`)).min(1))
    .min(1, { error: () => $localize`Sort the pieces into sets first.` })
    .max(200),
  /** What is printed with the goods. */
  care: z
    .array(lineOf(() => $localize`The care`))
    .max(6)
    .default([]),
});
export type SetTags = z.infer<typeof setTags>;

export const newFastnessTest = z
  .object({
    id,
    kind: z.enum(FASTNESS_KINDS),
    place: z.enum(FASTNESS_PLACES).nullable(),
    name: nameOf(() => $localize`The name`),
    lotId: id.nullable(),
    cloths: z
      .array(nameOf(() => $localize`The white cloth`))
      .max(8)
      .default([]),
    startedOn: isoDate,
    note: noteOf(() => $localize`The note`),
  })
  .refine((t) => (t.kind === 'light') === (t.place !== null), {
    error: () => $localize`Say where the card hangs; a wash hangs nowhere.`,
    path: ['place'],
  });
export type NewFastnessTest = z.input<typeof newFastnessTest>;
export type ReadNewFastnessTest = z.infer<typeof newFastnessTest>;

const grade = z.literal([...GREY_GRADES], { error: () => $localize`A grade goes from 1 to 5, in halves.` });
export const newFastnessReading = z
  .object({
    id,
    /** The white cloth of this fibre; `null`: the piece itself. */
    cloth: z.string().nullable(),
    onDate: isoDate,
    before: lab.nullable(),
    after: lab.nullable(),
    /** As an eye graded it. */
    typedGrade: grade.nullable(),
    note: noteOf(() => $localize`The note`),
    replacesId: id.nullable(),
  })
  .refine((r) => r.typedGrade !== null || (r.before !== null && r.after !== null), {
    error: () => $localize`Read it before and after, or give it a grade by the grey scale.`,
    path: ['typedGrade'],
  });
export type NewFastnessReading = z.infer<typeof newFastnessReading>;

export const fastnessTest = z
  .object({
    id,
    kind: z.enum(FASTNESS_KINDS),
    place: z.enum(FASTNESS_PLACES).nullable(),
    name: z.string(),
    lot: z.object({ id, tag: z.string() }).nullable(),
    madeWith,
    cloths: z.array(z.string()),
    startedOn: isoDate,
    note: z.string(),
    by: personRef,
    readings: z.array(
      z.object({
        id,
        cloth: z.string().nullable(),
        onDate: isoDate,
        days: z.int(),
        before: lab.nullable(),
        after: lab.nullable(),
        deltaE00: z.number().nullable(),
        grade,
        byEye: z.boolean(),
        note: z.string(),
        replacesId: id.nullable(),
        at: isoTime,
        by: personRef,
      }),
    ),
    change: grade.nullable(),
    staining: grade.nullable(),
    curve: z
      .object({
        mostDeltaE00: z.number(),
        timeConstantDays: z.number(),
        residualDeltaE00: z.number(),
        readings: z.int(),
        /** Days until it shows, by place; `null`: never, as far as can be told. */
        shows: z.array(z.object({ place: z.enum(FASTNESS_PLACES), deltaE00: z.number(), days: z.number().nullable() })),
      })
      .nullable(),
    dueOn: isoDate.nullable(),
  })
  .meta({ id: 'FastnessTest' });
export type FastnessTest = z.infer<typeof fastnessTest>;

export const FASTNESS_SUBJECTS = ['lot', 'recipeVersion', 'stockLot'] as const;
/** What is known of how fast something is, and what is printed with it. */
export const fastnessOf = z
  .object({
    pairs: z.array(
      z.object({
        dyestuff: z.string(),
        mordant: z.string(),
        lightChange: grade.nullable(),
        washChange: grade.nullable(),
        staining: grade.nullable(),
        tests: z.int(),
      }),
    ),
    care: z.array(z.string()),
    /** Of pieces that stand on an open shelf: how far they have faded by now. */
    onShelf: z.object({ days: z.int(), deltaE00: numberIn(() => 'ΔE', 0, 200), since: isoDate }).nullable(),
  })
  .meta({ id: 'FastnessOf' });
export type FastnessOf = z.infer<typeof fastnessOf>;

export const repeatability = z
  .object({
    points: z.array(
      z.object({
        id,
        tag: z.string(),
        at: isoTime,
        lab: labUnder,
        deltaE: z.number(),
        lightness: z.number(),
        chroma: z.number(),
        hue: z.number(),
        signals: z.array(z.string()),
      }),
    ),
    limits: z
      .array(z.object({ channel: z.enum(['lightness', 'chroma', 'hue']), centre: z.number(), sigma: z.number() }))
      .nullable(),
    commonFactors: z.array(z.object({ name: z.string(), value: z.string(), lots: z.int() })),
  })
  .meta({ id: 'Repeatability' });
export type RepeatabilityView = z.infer<typeof repeatability>;

const labDifference = z.object({ L: z.number(), a: z.number(), b: z.number() });
export const reader = z
  .object({
    name: z.string(),
    readings: z.int(),
    repeatabilityDeltaE00: z.number().nullable(),
    offset: z.object({ lab: labDifference, leftDeltaE00: z.number() }).nullable(),
    sharedSwatches: z.int(),
  })
  .meta({ id: 'Reader' });
export type ReaderView = z.infer<typeof reader>;

/** What a wet reading will be once it is dry; `forecast` is `null` while too few pairs were read both ways. */
export const dryForecast = z
  .object({
    pairs: z.int(),
    needed: z.int(),
    forecast: z.object({ lab, within80: z.number() }).nullable(),
  })
  .meta({ id: 'DryForecast' });
export type DryForecastView = z.infer<typeof dryForecast>;

/** The printed card as it was measured: its patches in order, under D65 and 2°. */
export const newPatchCard = z.object({
  id,
  labs: z.array(lab).length(CARD_PATCHES.length, {
    error: () => $localize`The card has ${CARD_PATCHES.length} patches. Read them all, in order.`,
  }),
  note: noteOf(() => $localize`The note`),
});
export const patchCard = z.object({ labs: z.array(lab), note: z.string(), at: isoTime, by: personRef }).nullable();
export type PatchCard = z.infer<typeof patchCard>;
