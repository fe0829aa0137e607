/**
 * What the tools of drawing and correcting are called, what they do, and what they ask for next.
 */
import type { CornerKind, EndKind } from '@nuvet/core/shape';
import type { HandTool } from '@/table/hand-store';

export const toolWords: Record<HandTool, { readonly word: string; readonly explanation: string; readonly asks: string }> = {
  outline: {
    word: 'Free outline',
    explanation: 'Click for a corner, drag for a curve, hold for an arc; close it at its start',
    asks: 'Click for a corner, drag for a curve, hold still for an arc through that place. Click the start to close.',
  },
  line: { word: 'Line', explanation: 'From one place to another; right across at an angle; midway between two lines', asks: 'Click both ends, or drag. Right across: click two places that it runs through. Midway: click both lines.' },
  rectangle: { word: 'Rectangle', explanation: 'From corner to corner, with a corner radius if you like', asks: 'Click two opposite corners.' },
  circle: { word: 'Circle', explanation: 'By its centre, two or three places on it, or touching two lines', asks: 'Click the centre and a point on the circle, or two or three points on it.' },
  ellipse: { word: 'Ellipse', explanation: 'In the box between two corners', asks: 'Click two corners of its box.' },
  arc: { word: 'Arc', explanation: 'Through three places, or leaving a line smoothly', asks: 'Click the start, a place on it, and the end.' },
  polygon: { word: 'Polygon', explanation: 'A regular one, from its centre to a corner', asks: 'Click the centre, then a corner.' },
  slot: { word: 'Slot', explanation: 'Between the middles of its ends; as wide as typed, or stock thickness is thick', asks: 'Click both ends of its middle line.' },
  points: {
    word: 'Points',
    explanation: 'Move points, handles and segments; add and remove points',
    asks: 'Click a piece, then drag its points, handles or lines. Double-click a line to add a point; Shift-drag selects several.',
  },
  trim: { word: 'Trim', explanation: 'Removes the part you click, up to the next crossing; Shift-click extends an open end', asks: 'Click the part to remove. With Shift, click near an open end to lead it on to the next thing.' },
  join: { word: 'Join ends', explanation: 'Open ends that nearly meet are brought together', asks: 'Say how far apart ends may be, and how they meet.' },
  corners: { word: 'Corners', explanation: 'Round, bevel, or make room for a round tool', asks: 'Choose a piece, then the radius.' },
  offset: { word: 'Offset', explanation: 'Outlines at a distance: rings, thickness, bands', asks: 'Choose a piece, then the distance.' },
  combine: { word: 'Combine', explanation: 'Unite pieces, take one from another, cut along a line', asks: 'Choose two pieces or more: hold Shift and click.' },
  arrange: { word: 'Arrange', explanation: 'Move, rotate, scale, mirror, align or copy by exact values', asks: 'Choose pieces; Shift adds more. Drag one to move it.' },
  follow: { word: 'Live', explanation: 'A mirror, turned copies, cut-outs and flat strips that follow what you draw', asks: 'Choose what you drew; the rest follows it.' },
}; // biome-ignore format: a table

export const cornerWords: Record<CornerKind, string> = { round: 'round', mitre: 'mitred', square: 'cut square' };
export const endWords: Record<EndKind, string> = { round: 'round', flat: 'flat', square: 'square' };
