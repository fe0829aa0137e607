/** In: the order in which a block is sewn. Out: its steps as one sews them: units alike are sewn one after another. */
import type { PatchShape } from './patches.ts';
import { isSetIn, type Unit, unitsOf } from './piecing.ts';

export interface PiecingStep {
  /** Units alike; their parts are sewn in steps before. */
  readonly units: readonly Unit[];
  /** What is joined: `A`, `2 x B`, a unit by its number: `3`. */
  readonly joined: readonly string[];
  readonly isSetIn: boolean;
}

export function piecingSteps(root: Unit, shapes: readonly PatchShape[]): PiecingStep[] {
  const patchName = new Map(shapes.flatMap(({ name, patches, isSymmetric }) => patches.map(({ face, isReversed }) => [face, isReversed && !isSymmetric ? `${name}r` : name] as const))); // biome-ignore format: one line
  const kinds = new Map<Unit, string>();
  const kindOf = (unit: Unit): string => {
    let kind = kinds.get(unit);
    if (kind === undefined) {
      const parts = unit.parts.map(kindOf).sort();
      kind =
        parts.length === 0
          ? (patchName.get(unit.faces[0] as number) ?? '')
          : `(${parts.join(' ')} ${unit.seam?.lengthMm.toFixed(1) ?? 'set in'})`;
      kinds.set(unit, kind);
    }
    return kind;
  };
  const steps = new Map<string, Unit[]>();
  for (const unit of unitsOf(root)) {
    if (unit.parts.length === 0) continue;
    const kind = kindOf(unit);
    const same = steps.get(kind);
    if (same) same.push(unit);
    else steps.set(kind, [unit]);
  }
  const numbers = new Map([...steps.keys()].map((kind, k) => [kind, String(k + 1)]));
  return [...steps.values()].map((units) => {
    const [first] = units as [Unit];
    const joined = first.parts.map((part) => numbers.get(kindOf(part)) ?? kindOf(part)).sort();
    return { units, joined, isSetIn: isSetIn(first) };
  });
}
