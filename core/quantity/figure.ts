/** One input of a computed figure, by the name a dyer would use. */
export interface FigureInput {
  readonly name: string;
  readonly value: number | string;
  readonly unit: string;
  /** Where the input came from: a recipe line, the balance, a vessel's card. */
  readonly source?: string;
}

/** How a figure was reached: the sum in words, its inputs, and what was done to it afterwards. */
export interface Working {
  readonly formula: string;
  readonly inputs: readonly FigureInput[];
  /** What happened after the sum: rounded to the balance, capped by the vessel. */
  readonly notes: readonly string[];
}

/** A computed number that carries its own explanation. */
export interface Figure {
  readonly value: number;
  readonly unit: string;
  readonly working: Working;
}

/** Puts a value together with its working. */
export function figure(
  value: number,
  unit: string,
  formula: string,
  inputs: readonly FigureInput[],
  notes: readonly string[] = [],
): Figure {
  return { value, unit, working: { formula, inputs, notes } };
}
