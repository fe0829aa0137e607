/**
 * What the tools of drawing and correcting are called, what they do, and what they ask for next.
 */
import type { CornerKind, EndKind } from '@nuvet/core/shape';
import type { HandTool } from '@/table/hand-store';
import { words } from '@/words';

export const toolWords: Record<HandTool, { readonly word: string; readonly explanation: string; readonly asks: string }> = {
  outline: {
    word: words.byHand.freeOutline,
    explanation: words.byHand.freeOutlineExplanation,
    asks: words.byHand.freeOutlinePrompt,
  },
  line: { word: words.byHand.line, explanation: words.byHand.lineExplanation, asks: words.byHand.linePrompt },
  rectangle: { word: words.byHand.rectangle, explanation: words.byHand.rectangleExplanation, asks: words.byHand.rectanglePrompt },
  circle: { word: words.byHand.circle, explanation: words.byHand.circleExplanation, asks: words.byHand.circlePrompt },
  ellipse: { word: words.byHand.ellipse, explanation: words.byHand.ellipseExplanation, asks: words.byHand.ellipsePrompt },
  arc: { word: words.byHand.arc, explanation: words.byHand.arcExplanation, asks: words.byHand.arcPrompt },
  polygon: { word: words.byHand.polygon, explanation: words.byHand.polygonExplanation, asks: words.byHand.polygonPrompt },
  slot: { word: words.byHand.slot, explanation: words.byHand.slotExplanation, asks: words.byHand.slotPrompt },
  points: {
    word: words.byHand.pointsTool,
    explanation: words.byHand.pointsExplanation,
    asks: words.byHand.pointsPrompt,
  },
  trim: { word: words.byHand.trim, explanation: words.byHand.trimExplanation, asks: words.byHand.trimPrompt },
  join: { word: words.byHand.joinEnds, explanation: words.byHand.joinExplanation, asks: words.byHand.joinPrompt },
  corners: { word: words.byHand.corners, explanation: words.byHand.cornersExplanation, asks: words.byHand.cornersPrompt },
  offset: { word: words.byHand.offset, explanation: words.byHand.offsetExplanation, asks: words.byHand.offsetPrompt },
  combine: { word: words.byHand.combine, explanation: words.byHand.combineExplanation, asks: words.byHand.combinePrompt },
  arrange: { word: words.byHand.arrange, explanation: words.byHand.arrangeExplanation, asks: words.byHand.arrangePrompt },
  follow: { word: words.byHand.liveTool, explanation: words.byHand.liveExplanation, asks: words.byHand.livePrompt },
};

export const cornerWords: Record<CornerKind, string> = {
  round: words.byHand.round,
  mitre: words.byHand.mitred,
  square: words.byHand.cutSquare,
};
export const endWords: Record<EndKind, string> = { round: words.byHand.round, flat: words.byHand.flat, square: words.byHand.square };
