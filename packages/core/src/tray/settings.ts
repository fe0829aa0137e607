/** The settings of a tray: how its objects were photographed, how high each is, and the drawer that it is for. Lengths in mm. */
import { z } from 'zod';
import { finite, pointSchema, text } from '../job/schema-parts.ts';
import { edgeShapes } from './true-outline.ts';

export const mostObjects = 200;
export const mostLayers = 12;
/** How objects are laid out where no hand has moved them. */
export const trayLayouts = ['as they lie', 'close together'] as const;

const heightMm = finite.min(0).max(1000);

const objectSchema = z.strictObject({
  pieceId: text(64),
  /** Null is as for all. */
  heightMm: heightMm.nullable(),
  edge: z.enum(edgeShapes).nullable(),
  /** How deep it lies; null is by the share of its height. */
  depthMm: heightMm.nullable(),
  /** Where along it a finger reaches it, as a share of its length; null for no notch, absent is where it balances. */
  notchAt: finite.min(0).max(1).nullable().optional(),
  /** Where its middle lies in the drawer, and how it is turned against the photograph, radians; null is by the layout. */
  place: z.strictObject({ at: pointSchema, turn: finite }).nullable(),
});
export type TrayObject = z.infer<typeof objectSchema>;

export const traySchema = z.strictObject({
  /** The camera's height over the sheet; null is read from the photograph's perspective. */
  cameraMm: finite.min(20).max(20_000).nullable(),
  heightMm,
  edge: z.enum(edgeShapes),
  objects: z.array(objectSchema).max(mostObjects),
  clearanceMm: finite.min(0).max(20),
  /** Of the tool that cuts the pockets; 0 cuts sharp corners. */
  cutterMm: finite.min(0).max(50),
  /** Across a finger notch; 0 for none. */
  notchMm: finite.min(0).max(100),
  widthMm: finite.min(10).max(5000),
  lengthMm: finite.min(10).max(5000),
  cornerMm: finite.min(0).max(200),
  marginMm: finite.min(0).max(500),
  /** What has to stand between two pockets. */
  wallMm: finite.min(0).max(200),
  layout: z.enum(trayLayouts),
  /** Sheets from the top down; none is one of the stock. */
  layersMm: z.array(finite.min(0.5).max(500)).max(mostLayers),
  /** How much of its height an object lies in the tray. */
  depthShare: finite.min(0.05).max(1),
  numbered: z.boolean(),
  paper: text(40),
});
export type TraySettings = z.infer<typeof traySchema>;

export const plainTray: TraySettings = {
  cameraMm: null,
  heightMm: 15,
  edge: 'round',
  objects: [],
  clearanceMm: 0.5,
  cutterMm: 0,
  notchMm: 22,
  widthMm: 400,
  lengthMm: 300,
  cornerMm: 0,
  marginMm: 10,
  wallMm: 6,
  layout: 'as they lie',
  layersMm: [],
  depthShare: 0.75,
  numbered: true,
  paper: 'A4',
};
