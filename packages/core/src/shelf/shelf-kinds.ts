/**
 * What lies on the shelf: a table each of materials, tools and machines, with their schemas, columns and what a workshop starts with.
 */
import type { z } from 'zod';
import type { Column } from './column.ts';
import { machineColumns, type ShelfMachine, shelfMachineSchema } from './machine.ts';
import { type Material, materialColumns, materialSchema } from './material.ts';
import { starterMachines, starterMaterials, starterTools } from './starters.ts';
import { type Tool, toolColumns, toolSchema } from './tool.ts';

export interface ShelfValues {
  readonly material: Material;
  readonly tool: Tool;
  readonly machine: ShelfMachine;
}
export type ShelfKind = keyof ShelfValues;
export type ShelfValue = ShelfValues[ShelfKind];

interface ShelfKindEntry<V> {
  readonly schema: z.ZodType<V>;
  readonly columns: readonly Column[];
  readonly starters: readonly V[];
}

export const shelfKinds: { readonly [K in ShelfKind]: ShelfKindEntry<ShelfValues[K]> } = {
  material: { schema: materialSchema, columns: materialColumns, starters: starterMaterials },
  tool: { schema: toolSchema, columns: toolColumns, starters: starterTools },
  machine: { schema: shelfMachineSchema, columns: machineColumns, starters: starterMachines },
};
export const shelfKindNames = Object.keys(shelfKinds) as [ShelfKind, ...ShelfKind[]];

/** An item as it is kept: with its own id, and how often it was changed. */
export interface ShelfItem<K extends ShelfKind = ShelfKind> {
  readonly id: string;
  readonly kind: K;
  readonly revision: number;
  readonly value: ShelfValues[K];
}
