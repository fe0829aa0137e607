/**
 * The table of edits of a job: plain data in, a new job out. One entry is all that a new kind needs; refused edits throw
 * `CommandError` and change nothing.
 */
import { z } from 'zod';
import type { Job } from '../schema.ts';
import type { CommandKind } from './command-kind.ts';
import { drawingCommands } from './drawing-commands.ts';
import { drawnCommands } from './drawn-commands.ts';
import { jobCommands } from './job-commands.ts';
import { markCommands } from './mark-commands.ts';
import { pictureCommands } from './picture-commands.ts';
import { pieceCommands } from './piece-commands.ts';

const kinds = { ...jobCommands, ...pictureCommands, ...markCommands, ...drawingCommands, ...pieceCommands, ...drawnCommands };
type Kinds = typeof kinds;

/** An edit as plain data: `do` names its kind. */
export type Command = { [K in keyof Kinds]: { do: K } & z.infer<z.ZodObject<Kinds[K]['fields']>> }[keyof Kinds];

const schemas = Object.entries(kinds).map(([name, { fields }]) => z.strictObject({ do: z.literal(name), ...(fields as z.ZodRawShape) }));
/** Checked before it is done, by page and server alike. */
export const commandSchema = z.discriminatedUnion('do', schemas as [(typeof schemas)[0]]) as unknown as z.ZodType<Command>;

const kindOf = (command: Command): CommandKind<z.ZodRawShape> => kinds[command.do] as unknown as CommandKind<z.ZodRawShape>;

/** The job after an edit. */
export const applyCommand = (job: Job, command: Command): Job => kindOf(command).apply(job, command);

/** What an edit is called in undo and redo. */
export const labelOf = (command: Command): string => kindOf(command).label(command);
