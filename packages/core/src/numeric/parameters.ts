/** Tables of the constants that a stage's results rest on; what a bench varies of them is set before they are loaded. */

export interface Parameter {
  readonly value: number;
  /** 'points' and 'places' are counted: they stay whole when they are varied. */
  readonly unit: string;
  readonly meaning: string;
}

/** What a bench multiplies parameters by. */
const factors = (globalThis as { parameterFactors?: Readonly<Record<string, number>> }).parameterFactors ?? {};

const counted: readonly string[] = ['points', 'places'];

function varied(name: string, { value, unit }: Parameter): number {
  const made = value * (factors[name] ?? 1);
  return counted.includes(unit) ? Math.round(made) : made;
}

export const parametersOf = <Name extends string>(table: Readonly<Record<Name, Parameter>>): Readonly<Record<Name, number>> =>
  Object.fromEntries(Object.entries<Parameter>(table).map(([name, one]) => [name, varied(name, one)])) as Record<Name, number>;
