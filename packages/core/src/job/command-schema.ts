/**
 * What every edit of a job looks like: plain data, checked before it is done.
 */
import { z } from 'zod';
import { drawnFields, drawnSchema } from './drawn.ts';
import { drawingSchema, jobFields, markSchema, pictureSchema, pieceSchema, pointSchema, purposes, traceSchema } from './schema.ts';
import { anyText, text } from './schema-parts.ts';
import { proofFields, setupFields } from './setup.ts';

const pictureId = z.uuid();
const id = text(64);
const [markId, drawingId, drawnId, pieceId] = [id, id, id, id];
const pieceIds = z.array(id).min(1).max(20_000);

const markIds = { pictureId, markId };
const shape = pictureSchema.shape;

export const commandSchema = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('rename'), name: jobFields.shape.name }),
  z.strictObject({ do: z.literal('set-unit'), unit: jobFields.shape.unit }),
  z.strictObject({ do: z.literal('set-making'), making: jobFields.shape.making }),
  z.strictObject({ do: z.literal('set-plan-scale'), planScale: jobFields.shape.planScale.unwrap() }),
  z.strictObject({ do: z.literal('bring-in'), picture: pictureSchema }),
  z.strictObject({ do: z.literal('take-out'), pictureId }),
  z.strictObject({ do: z.literal('order-picture'), pictureId, to: z.int().min(0).max(49) }),
  z.strictObject({
    do: z.literal('change-picture'),
    pictureId,
    change: z
      .strictObject({
        name: shape.name,
        opacity: shape.opacity,
        hidden: shape.hidden.unwrap(),
        locked: shape.locked.unwrap(),
        tone: shape.tone.unwrap(),
        quarterTurns: shape.quarterTurns.unwrap(),
        flipped: shape.flipped.unwrap(),
        crop: shape.crop.unwrap(),
        pinned: shape.pinned.unwrap(),
        datum: shape.datum.unwrap(),
        place: shape.place.unwrap(),
        resolution: shape.resolution,
      })
      .partial(),
  }),
  z.strictObject({ do: z.literal('add-mark'), pictureId, mark: markSchema }),
  z.strictObject({ do: z.literal('move-mark'), ...markIds, points: z.array(pointSchema).min(2).max(200) }),
  z.strictObject({
    do: z.literal('state'),
    ...markIds,
    index: z.int().min(0).max(1),
    text: anyText(200),
    value: z.number().nonnegative().max(1e9),
  }),
  z.strictObject({ do: z.literal('set-way'), ...markIds, way: z.enum(['contained', 'covering', 'each-side']) }),
  z.strictObject({ do: z.literal('remove-mark'), ...markIds }),
  z.strictObject({ do: z.literal('bring-in-drawing'), drawing: drawingSchema }),
  z.strictObject({ do: z.literal('take-out-drawing'), drawingId }),
  z.strictObject({ do: z.literal('hide-drawing'), drawingId, hidden: z.boolean() }),
  z.strictObject({ do: z.literal('set-drawing-unit'), drawingId, mmPerUnit: drawingSchema.shape.mmPerUnit }),
  z.strictObject({ do: z.literal('set-trace'), trace: traceSchema }),
  z.strictObject({ do: z.literal('leave-out'), pieceIds, leftOut: z.boolean() }),
  z.strictObject({ do: z.literal('keep-only'), pieceIds }),
  z.strictObject({ do: z.literal('fill-hole'), pieceId, hole: z.int().min(0).max(20_000) }),
  z.strictObject({
    do: z.literal('reshape'),
    pieceId,
    outer: pieceSchema.shape.outer,
    holes: pieceSchema.shape.holes,
  }),
  z.strictObject({
    do: z.literal('relate'),
    pieces: z
      .array(z.strictObject({ pieceId, outer: pieceSchema.shape.outer, holes: pieceSchema.shape.holes }))
      .min(1)
      .max(20_000),
  }),
  z.strictObject({ do: z.literal('add-piece'), pictureId, piece: pieceSchema }),
  z.strictObject({ do: z.literal('draw'), drawn: drawnSchema }),
  z.strictObject({ do: z.literal('redraw'), drawnId, source: drawnFields.shape.source }),
  z.strictObject({
    do: z.literal('change-drawn'),
    drawnId,
    change: z
      .strictObject({
        name: drawnFields.shape.name,
        purpose: drawnFields.shape.purpose,
        purposes: drawnFields.shape.purposes.unwrap(),
        live: drawnFields.shape.live.unwrap(),
        held: drawnFields.shape.held.unwrap(),
      })
      .partial(),
  }),
  /** Drawn things, and traced pieces, give way to others that were made of them. */
  z.strictObject({
    do: z.literal('replace-drawn'),
    /** What undo calls it. */
    word: text(140),
    ids: z.array(drawnId).max(5000),
    by: z.array(drawnSchema).max(5000),
  }),
  z.strictObject({ do: z.literal('set-purpose'), pieceIds, purpose: z.enum(purposes) }),
  z.strictObject({ do: z.literal('prove-by'), change: proofFields.partial() }),
  z.strictObject({ do: z.literal('set-up'), change: setupFields.partial() }),
]);
export type Command = z.infer<typeof commandSchema>;
