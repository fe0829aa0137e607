/**
 * What the page shows of a process: its drawing, its panels, what it draws on the light table. Each has a folder and one line in the
 * registry here; its words stand in `words/english/processes.ts`.
 */
import type { Piece, ProcessEntry, Stock } from '@nuvet/core/job';
import type { Estimate, JobProcess, ProcessKind } from '@nuvet/core/processes';
import type { ComponentType, LazyExoticComponent } from 'react';
import type { Dragged, Handle } from '@/table/table-process';
import type { View } from '@/table/view';

/** A process of the job as its panels see it. */
export interface OpenProcess<Settings extends object = object, Plan = unknown> {
  readonly entry: ProcessEntry;
  readonly kind: ProcessKind<Settings, Plan>;
  readonly settings: Settings;
  readonly stock: Stock;
  /** Null until it is planned. */
  readonly plan: Plan | null;
  readonly notes: ReturnType<ProcessKind<Settings, Plan>['notes']>;
  readonly estimate: Estimate | null;
  /** Changes some of its settings. */
  set(change: Partial<Settings>): void;
}

export interface PanelProps<Settings extends object = object, Plan = unknown> {
  readonly open: OpenProcess<Settings, Plan>;
  readonly pieces: readonly Piece[];
  readonly jobId: string;
  readonly hasCutter: boolean;
  /** Whether the proof stops it. */
  readonly isStopped: boolean;
}

export interface ProofProps {
  readonly process: JobProcess;
  /** As large as they are made. */
  readonly pieces: readonly Piece[];
  /** Goes on to a panel of the process in Make ready. */
  readonly onShow: (panel: string) => void;
}

export interface ProcessPanel<Settings extends object = object, Plan = unknown> {
  readonly name: string;
  readonly word: string;
  readonly icon: ComponentType;
  readonly explanation: string;
  readonly Panel: ComponentType<PanelProps<Settings, Plan>>;
  /** What stands in the light table's place while it is open, loaded then. */
  readonly Scene?: LazyExoticComponent<ComponentType<{ pieces: readonly Piece[] }>>;
  /** In place of what the process says is drawn of its plan. */
  draw?(canvas: CanvasRenderingContext2D, view: View, open: OpenProcess<Settings, Plan>, pieces: readonly Piece[]): void;
  /** What can be dragged on the table, and the settings once it lies elsewhere. */
  readonly drag?: {
    handles(plan: Plan, settings: Settings): readonly Handle[];
    to(dragged: Dragged, plan: Plan, settings: Settings): Partial<Settings>;
    /** The settings once it was clicked on. */
    click?(handle: Handle, plan: Plan, settings: Settings): Partial<Settings>;
    /** Whether the plan is made anew while it is dragged; else once it is let go. */
    readonly isFollowed: boolean;
  };
}

export interface ProcessView<Settings extends object = object, Plan = unknown> {
  /** Its drawing on cards. */
  readonly icon: ComponentType<{ fontSize?: 'inherit' | 'small' | 'large' }>;
  readonly panels: readonly ProcessPanel<Settings, Plan>[];
  /** What Prove shows of it beside the findings on outlines: what a trial found, say. */
  readonly Proof?: LazyExoticComponent<ComponentType<ProofProps>>;
  /** Whether no machine takes part: then there is none to set up, and no stock that it holds. */
  readonly hasNoMachine?: true;
  /** Whether the job's picture lies under what is printed. */
  showsPicture?(settings: Settings): boolean;
}

// biome-ignore lint/suspicious/noExplicitAny: the registry holds processes of all kinds of settings and plans
export type AnyProcessView = ProcessView<any, any>;
