/**
 * What edits are called in undo and redo.
 */

import { english } from '../messages/index.ts';
import type { Command } from './command-schema.ts';
import type { Mark, Picture } from './schema.ts';
import type { ProofWishes, Setup } from './setup.ts';

/** What a new trace is called in undo and redo. */
export const traceLabel = english.job.theTrace;

const markWords: Record<Mark['kind'], string> = {
  'known-length': english.job.aKnownLength,
  level: english.job.aLevelLine,
  plumb: english.job.aPlumbLine,
  'right-angle': english.job.aRightAngle,
  frame: english.job.aFrame,
  circle: english.job.aCircle,
  box: english.job.aBox,
  clearance: english.job.aClearance,
  'scale-card': english.job.theScaleCard,
  check: english.job.aCheckMeasurement,
  'check-angle': english.job.aCheckMeasurement,
  'check-radius': english.job.aCheckMeasurement,
  'check-along': english.job.aCheckMeasurement,
};

const changeWords: Partial<Record<keyof Picture, string>> = {
  name: english.job.thePicturesName,
  opacity: english.job.theOpacity,
  hidden: english.job.showingAPicture,
  locked: english.job.lockingAPicture,
  tone: english.job.theTone,
  quarterTurns: english.job.aQuarterTurn,
  flipped: english.job.aFlip,
  crop: english.job.theCrop,
  pinned: english.job.theModel,
  datum: english.job.theDatum,
  place: english.job.movingAPicture,
  resolution: english.job.theResolution,
};

const proofWords: Partial<Record<keyof ProofWishes, string>> = {
  pinned: english.job.aSizeToProve,
  accepted: english.job.anIgnoredFinding,
  thinnestMm: english.job.theThinnestWeb,
  holds: english.job.bridges,
  box: english.job.theBoxsSize,
};

const setupWords: Partial<Record<keyof Setup, string>> = {
  stockWidthMm: english.job.theStocksSize,
  stockHeightMm: english.job.theStocksSize,
  cutting: english.job.howItIsCut,
  machine: english.job.theMachine,
  printing: english.job.howItIsPrinted,
  folding: english.job.howItIsFolded,
  fileNames: english.job.howFilesAreNamed,
};

/** What an edit is called in undo and redo. */
export function labelOf(command: Command): string {
  switch (command.do) {
    case 'rename': return english.job.theName;
    case 'set-unit': return english.job.theUnit;
    case 'set-making': return english.job.theProcess;
    case 'set-plan-scale': return english.job.theDrawingScale;
    case 'bring-in': return english.job.thePicture;
    case 'take-out': return english.job.removingAPicture;
    case 'order-picture': return english.job.thePicturesOrder;
    case 'change-picture': return changeWords[Object.keys(command.change)[0] as keyof Picture] ?? english.job.thePicture;
    case 'add-mark': return markWords[command.mark.kind];
    case 'move-mark': return english.job.movingAMark;
    case 'state': return english.job.aTypedLength;
    case 'set-way': return english.job.howTheBoxIsFilled;
    case 'remove-mark': return english.job.removingAMark;
    case 'bring-in-drawing': return english.job.theOutlines;
    case 'take-out-drawing': return english.job.removingOutlines;
    case 'hide-drawing': return english.job.showingOutlines;
    case 'set-drawing-unit': return english.job.theUnitOfTheOutlines;
    case 'set-trace': return traceLabel;
    case 'leave-out': return command.leftOut ? english.job.excludingPieces : english.job.includingPieces;
    case 'keep-only': return english.job.keepingOnePiece;
    case 'fill-hole': return english.job.fillingAHole;
    case 'reshape': return english.job.makingAPieceSymmetric;
    case 'relate': return english.job.makingRelationsExact;
    case 'add-piece': return english.job.aPieceAlongAnEdge;
    case 'draw': return english.job.drawing(command.drawn.name);
    case 'redraw': return english.job.aChangeOfWhatIsDrawn;
    case 'change-drawn': return command.change.live ? english.job.aLiveStep : command.change.held ? english.job.aLockedDimension : english.job.aNameOrPurpose;
    case 'replace-drawn': return command.word;
    case 'set-purpose': return english.job.aPurpose;
    case 'prove-by': return proofWords[Object.keys(command.change)[0] as keyof ProofWishes] ?? english.job.theProof;
    case 'set-up': return setupWords[Object.keys(command.change)[0] as keyof Setup] ?? english.job.theSetUp;
  } // biome-ignore format: a command a line
}
