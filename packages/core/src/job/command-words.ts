/**
 * What edits are called in undo and redo.
 */
import type { Command } from './commands.ts';
import type { Mark, Picture } from './schema.ts';
import type { ProofWishes, Setup } from './setup.ts';

/** What a new trace is called in undo and redo. */
export const traceLabel = 'the trace';

const markWords: Record<Mark['kind'], string> = {
  'known-length': 'a known length',
  level: 'a level line',
  plumb: 'a plumb line',
  'right-angle': 'a right angle',
  frame: 'a frame',
  circle: 'a circle',
  box: 'a box',
  clearance: 'a clearance',
  'scale-card': 'the scale card',
  check: 'a check measurement',
  'check-angle': 'a check measurement',
  'check-radius': 'a check measurement',
  'check-along': 'a check measurement',
};

const changeWords: Partial<Record<keyof Picture, string>> = {
  name: 'the picture’s name',
  opacity: 'the opacity',
  hidden: 'showing a picture',
  locked: 'locking a picture',
  tone: 'the tone',
  quarterTurns: 'a quarter turn',
  flipped: 'a flip',
  crop: 'the crop',
  pinned: 'the model',
  datum: 'the datum',
  place: 'moving a picture',
  resolution: 'the resolution',
};

const proofWords: Partial<Record<keyof ProofWishes, string>> = {
  pinned: 'a size to prove',
  accepted: 'an ignored finding',
  thinnestMm: 'the thinnest web',
  holds: 'bridges',
  box: 'the box’s size',
};

const setupWords: Partial<Record<keyof Setup, string>> = {
  stockWidthMm: 'the stock’s size',
  stockHeightMm: 'the stock’s size',
  cutting: 'how it is cut',
  machine: 'the machine',
  printing: 'how it is printed',
  folding: 'how it is folded',
  fileNames: 'how files are named',
};

/** What an edit is called in undo and redo. */
export function labelOf(command: Command): string {
  switch (command.do) {
    case 'rename': return 'the name';
    case 'set-unit': return 'the unit';
    case 'set-making': return 'the process';
    case 'set-plan-scale': return 'the drawing scale';
    case 'bring-in': return 'the picture';
    case 'take-out': return 'removing a picture';
    case 'order-picture': return 'the pictures’ order';
    case 'change-picture': return changeWords[Object.keys(command.change)[0] as keyof Picture] ?? 'the picture';
    case 'add-mark': return markWords[command.mark.kind];
    case 'move-mark': return 'moving a mark';
    case 'state': return 'a typed length';
    case 'set-way': return 'how the box is filled';
    case 'remove-mark': return 'removing a mark';
    case 'bring-in-drawing': return 'the outlines';
    case 'take-out-drawing': return 'removing outlines';
    case 'hide-drawing': return 'showing outlines';
    case 'set-drawing-unit': return 'the unit of the outlines';
    case 'set-trace': return traceLabel;
    case 'leave-out': return command.leftOut ? 'excluding pieces' : 'including pieces';
    case 'keep-only': return 'keeping one piece';
    case 'fill-hole': return 'filling a hole';
    case 'reshape': return 'making a piece symmetric';
    case 'relate': return 'making relations exact';
    case 'add-piece': return 'a piece along an edge';
    case 'draw': return `drawing ${command.drawn.name}`;
    case 'redraw': return 'a change of what is drawn';
    case 'change-drawn': return command.change.live ? 'a live step' : command.change.held ? 'a locked dimension' : 'a name or purpose';
    case 'replace-drawn': return command.word;
    case 'set-purpose': return 'a purpose';
    case 'prove-by': return proofWords[Object.keys(command.change)[0] as keyof ProofWishes] ?? 'the proof';
    case 'set-up': return setupWords[Object.keys(command.change)[0] as keyof Setup] ?? 'the set-up';
  } // biome-ignore format: a command a line
}
