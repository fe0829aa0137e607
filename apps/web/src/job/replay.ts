/**
 * In: steps that were not saved. Out: what of them is left to do on another state of the job: a step that was undone since is out
 * with its undo, and undos that reach farther back than these steps come first.
 */
import type { Command } from '@nuvet/core/job';
import type { Step } from '@/server/job-saves';

export interface Replay {
  /** How many edits from before these steps were undone. */
  readonly undos: number;
  readonly commands: readonly Command[];
}

export function replayOf(steps: readonly Step[]): Replay {
  const done: Command[] = [];
  const undone: (Command | null)[] = [];
  let undos = 0;
  for (const step of steps) {
    if (step.step === 'do') {
      done.push(step.command);
      undone.length = 0;
    } else if (step.step === 'undo') {
      const last = done.pop();
      if (!last) undos++;
      undone.push(last ?? null);
    } else {
      const again = undone.pop();
      if (again) done.push(again);
      else if (again === null) undos--;
    }
  }
  return { undos, commands: done };
}

/** The steps without the one at a place, and without the undo and redo of that very step. */
export function withoutStep(steps: readonly Step[], at: number): Step[] {
  const refused = steps[at];
  const rest = steps.slice(at + 1);
  if (refused?.step !== 'do') return [...steps.slice(0, at), ...rest];
  let depth = 0;
  let isUndone = false;
  const kept = rest.filter(({ step }) => {
    if (isUndone) {
      // Of what lies past it nothing can be redone but itself.
      if (step === 'do') isUndone = false;
      return step !== 'redo';
    }
    if (step === 'undo' && depth === 0) {
      isUndone = true;
      return false;
    }
    depth += step === 'undo' ? -1 : 1;
    return true;
  });
  return [...steps.slice(0, at), ...kept];
}
