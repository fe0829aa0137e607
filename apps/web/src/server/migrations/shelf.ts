/**
 * The shelf: materials, tools and machines in place of remembered presets, with what a workshop starts with; and what the list of jobs
 * shows of how they are made.
 */
import { randomUUID } from 'node:crypto';
import { machineSchema } from '@nuvet/core/job';
import { materialSchema, type ShelfKind, shelfKindNames, shelfKinds, shelfMachineSchema } from '@nuvet/core/shelf';
import { DataTypes, QueryTypes } from 'sequelize';
import type { Up } from './up.ts';

const localWorkshop = '00000000-0000-4000-8000-000000000001';
const needed = <T>(type: T) => ({ type, allowNull: false }) as const;

interface Preset {
  readonly workshop_id: string;
  readonly kind: 'stock' | 'machine';
  readonly name: string;
  readonly value: Record<string, unknown>;
}

export const up: Up = async (tables, transaction) => {
  const query = (sql: string) => tables.sequelize.query(sql, { type: QueryTypes.RAW, transaction });
  await tables.createTable(
    'shelf_items',
    {
      id: { ...needed(DataTypes.UUID), primaryKey: true },
      workshop_id: needed(DataTypes.UUID),
      kind: needed(DataTypes.TEXT),
      name: needed(DataTypes.TEXT),
      value: needed(DataTypes.JSONB),
      revision: needed(DataTypes.INTEGER),
      created_at: needed(DataTypes.DATE),
      updated_at: needed(DataTypes.DATE),
    },
    { transaction },
  );
  await tables.addIndex('shelf_items', ['workshop_id', 'kind', 'name'], { unique: true, transaction });

  const presets = (await tables.sequelize.query('select workshop_id, kind, name, value from presets', {
    type: QueryTypes.SELECT,
    transaction,
  })) as Preset[];
  const rows = new Map<string, Record<string, unknown>>();
  const add = (workshop: string, kind: ShelfKind, name: string, value: object): void => {
    const [now, id] = [new Date(), randomUUID()];
    const row = { id, workshop_id: workshop, kind, name, value: JSON.stringify(value), revision: 1, created_at: now, updated_at: now };
    rows.set(`${workshop} ${kind} ${name}`, row);
  };
  for (const kind of shelfKindNames) for (const value of shelfKinds[kind].starters) add(localWorkshop, kind, value.name, value);
  // What was remembered comes last, so that it stays where a starter has its name.
  for (const preset of presets) {
    const [kind, value] = preset.kind === 'stock' ? (['material', materialOf(preset)] as const) : (['machine', machineOf(preset)] as const);
    add(preset.workshop_id, kind, preset.name, value);
  }
  await tables.bulkInsert('shelf_items', [...rows.values()], { transaction });
  await tables.dropTable('presets', { transaction });

  await query(`update jobs set summary = (summary - 'making') || jsonb_build_object(
    'stock', coalesce(summary->'making'->'stock', 'null'),
    'processes', jsonb_build_array(case summary->'making'->>'way' when 'laser' then 'laser' when 'paper' then 'paper' else 'outlines' end),
    'uses', '[]'::jsonb)`);
};

function materialOf({ name, value }: Preset): object {
  const { thicknessMm, widthMm, heightMm, kerfMm, strengths } = value as Record<string, number | null> & { strengths?: object };
  const powerSettings = Object.fromEntries(
    Object.entries(strengths ?? {}).map(([purpose, { strength, ...more }]) => [purpose, { power: strength, ...more }]),
  );
  return materialSchema.parse({
    name,
    measuredMm: thicknessMm,
    sheets: widthMm && heightMm ? [{ widthMm, heightMm, count: 1 }] : [],
    onMachines: [{ machine: 'The machine', process: 'laser', kerfMm, settings: { powerSettings } }],
  });
}

const machineOf = ({ name, value }: Preset): object => {
  const { shelf: _, ...machine } = machineSchema.parse(value);
  return shelfMachineSchema.parse({ ...machine, name });
};
