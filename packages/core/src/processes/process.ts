/**
 * What a process is: its settings, what each purpose means in it, its limits, its plan and its files. Each has a folder and one line in
 * the registry; all else knows processes by the registry alone.
 */
import type { z } from 'zod';
import type { MadeBytes } from '../files/file-kinds.ts';
import type { Underlay } from '../formats/print-tiles.ts';
import type { Machine } from '../job/machine.ts';
import type { Stock } from '../job/making.ts';
import { makeOf, type Purpose, type PurposeKind } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import type { PhotographedPieces } from '../job/seen-from.ts';
import type { Message } from '../messages/index.ts';
import type { Path } from '../plane/index.ts';
import type { FaultCode } from '../proof/checks.ts';
import type { GreyOnSheet } from '../solid/index.ts';
import type { LaidOut } from './laid-sheets.ts';
import type { StandInJob } from './stand-in.ts';

/** What is made, by which settings, on which machine, of which stock. */
export interface Work<Settings> {
  readonly title: string;
  readonly pieces: readonly Piece[];
  readonly settings: Settings;
  readonly machine: Machine;
  readonly stock: Stock;
  /** For a process that takes them: which pieces come from which picture. */
  readonly photographs?: readonly PhotographedPieces[];
  /** For a process that takes them: the grey of pictures that its settings name. */
  readonly greys?: readonly GreyOnSheet[];
}

/** A line that is drawn over the outlines on the sheet. */
export interface SheetLine {
  readonly path: Path;
  /** Where work is done, lines that fill an area, where the tool only moves, or what frames a page. Work is in the order in which it is done. */
  readonly kind: 'work' | 'hatch' | 'travel' | 'frame';
  readonly purpose: Purpose | null;
}

export interface EstimateRow {
  readonly purpose: Purpose;
  readonly lengthMm: number;
  readonly seconds: number;
}

export interface Estimate {
  readonly rows: readonly EstimateRow[];
  /** In all, with what lies between; null where no time can be told. */
  readonly seconds: number | null;
}

/** What a plan could not do as it was drawn. */
export type PlanNote = Message & { readonly pieceId: string; readonly isFailure: boolean };

/** A file as it was made; how far it is off is null where it is not read back. */
export interface ProcessFileMade extends Omit<MadeBytes, 'largestMm' | 'toleranceMm'> {
  readonly largestMm: number | null;
  readonly toleranceMm: number | null;
  /** Sheets of paper, where it has pages. */
  readonly pages?: number;
  /** Of several files that come together: what stands after the name of each, and those that follow the first. */
  readonly part?: string;
  readonly further?: readonly ProcessFileMade[];
  /** What was found when it was tried, as plain data. */
  readonly report?: Readonly<Record<string, unknown>>;
}

export interface FileChoices {
  /** Pixels of a PNG in an inch. */
  readonly dpi: number;
  /** A picture to lie under what is printed. */
  readonly underlay: Underlay | null;
}

export interface ProcessFile<Settings, Plan> {
  readonly word: string;
  readonly about: string;
  readonly ending: string;
  readonly mediaType: string;
  /** Stands for {what} in the file's name. */
  readonly what: string;
  /** Whether it is a picture, of so many pixels in an inch. */
  readonly isRaster?: true;
  /** Whether there is such a file by these settings; always, where it does not say. */
  isOffered?(settings: Settings): boolean;
  /** @throws FileRefused where the file would not say what was proved */
  make(work: Work<Settings>, plan: Plan, choices: FileChoices): Promise<ProcessFileMade>;
}

/** What the process asks of outlines, beside what the job asks; lengths in mm. */
export interface ProcessLimits {
  readonly kerfMm: number;
  /** Webs must be at least so thick. */
  readonly thinnestMm: number;
}

/** A setting that `nuvet make` takes as a word of its own. */
export interface SettingOption<Settings> {
  /** A file is read, and its text is what is said. */
  readonly takes: 'word' | 'file' | 'nothing';
  readonly about: string;
  /** @throws Error in a sentence where the word, or the file's text, means nothing */
  read(word: string): Partial<Settings>;
}

// biome-ignore lint/suspicious/noExplicitAny: the registry holds processes of all kinds of settings and plans
export type AnyProcess = ProcessKind<any, any>;

export interface ProcessKind<Settings extends object, Plan> {
  readonly word: string;
  /** One sentence on its card. */
  readonly about: string;
  /** A field a setting, none with a default. */
  readonly settings: z.ZodObject;
  readonly plain: Settings;
  /** Settings as a job keeps them, with those within them that are as they are until they are set. */
  whole?(kept: Settings): Settings;
  /** What it makes of lines that are made alike, as it stands in a sentence; null where it does not make them. */
  readonly makes: Readonly<Record<PurposeKind['make'], string | null>>;
  /** Of single purposes, where it is not as that says. */
  readonly purposes: Readonly<Partial<Record<Purpose, string | null>>>;
  /** Settings that belong to the material: they are kept with it on the shelf. */
  readonly ofMaterial: readonly string[];
  /** Whether it asks which pictures the pieces come from. */
  readonly takesPhotographs?: true;
  /** The ids of pictures whose grey it asks for. */
  greysIn?(settings: Settings): readonly string[];
  /** Whether it cuts pieces from sheets, on which copies of them can be laid out. */
  readonly cutsSheets?: true;
  limits(settings: Settings): ProcessLimits;
  /** Findings on outlines that mean nothing to it: it makes something else of them. */
  readonly ignores?: readonly FaultCode[];
  /** Loads what it plans with, where that takes loading: before the first plan. */
  ready?(): Promise<void>;
  /** Yields the share done, 0 to 1. */
  plan(work: Work<Settings>): Generator<number, Plan>;
  notes(plan: Plan): readonly PlanNote[];
  estimate(plan: Plan): Estimate;
  drawing(plan: Plan): readonly SheetLine[];
  readonly files: Readonly<Record<string, ProcessFile<Settings, Plan>>>;
  /** The sheets that it is cut from, where it is laid out on some. Yields the share done, 0 to 1. */
  laidOut?(work: Work<Settings>, plan: Plan): Generator<number, LaidOut>;
  /** What the machine is sent that stands in for a real one, if there is one for it. @throws FileRefused */
  standIn?(work: Work<Settings>, plan: Plan): Promise<StandInJob>;
  readonly options?: Readonly<Record<string, SettingOption<Settings>>>;
}

/** Keeps the kinds of settings and plan of a process together. */
export const processKind = <Settings extends object, Plan>(kind: ProcessKind<Settings, Plan>): ProcessKind<Settings, Plan> => kind;

/** What a process makes of lines of a purpose; null where it does not make them. */
export function meaningOf({ makes, purposes }: Pick<AnyProcess, 'makes' | 'purposes'>, purpose: Purpose): string | null {
  const own = purposes[purpose];
  return own === undefined ? makes[makeOf({ purpose })] : own;
}
