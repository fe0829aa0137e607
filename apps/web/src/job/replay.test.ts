/** What is left of steps of which one was refused, and of steps that are done again on another state. */

import { describe, expect, it } from 'vitest';
import type { Step } from '@/server/job-saves';
import { replayOf, withoutStep } from './replay';

const named = (name: string): Step => ({ step: 'do', command: { do: 'rename', name } });
const [undo, redo]: [Step, Step] = [{ step: 'undo' }, { step: 'redo' }];
const [a, b, c] = [named('a'), named('b'), named('c')] as [Step, Step, Step];

describe('steps without a refused one', () => {
  it.each([
    ['what follows stays', [a, b, c], [b, c]],
    ['its undo goes with it', [a, undo], []],
    ['the undo of a later step stays', [a, b, undo], [b, undo]],
    ['of two undos the second was its own', [a, b, undo, undo], [b, undo]],
    ['undo and redo of it go', [a, undo, redo, b], [b]],
    ['nothing can be redone past its undo', [a, b, undo, undo, redo, redo, c], [b, undo, c]],
  ] as [string, Step[], Step[]][])('%s', (_, steps, left) => expect(withoutStep(steps, 0)).toEqual(left));
  it('what stands before it stays', () => expect(withoutStep([a, b, c], 1)).toEqual([a, c]));
});

describe('steps done again on another state', () => {
  it.each([
    ['all that was done', [a, b], 0, ['a', 'b']],
    ['not what was undone since', [a, b, undo], 0, ['a']],
    ['what was redone', [a, b, undo, redo], 0, ['a', 'b']],
    ['undos that reach farther back come first', [undo, undo, a], 2, ['a']],
    ['less those that were redone', [undo, undo, redo], 1, []],
  ] as [string, Step[], number, string[]][])('%s', (_, steps, undos, names) => {
    const replay = replayOf(steps);
    expect(replay.undos).toBe(undos);
    expect(replay.commands.map((command) => (command as { name: string }).name)).toEqual(names);
  });
});
