/** Blocks as makers draw them, scanned: patches filled and apart, or lines of ink between them; traced as shapes or by the lines' middles. */
import { defaultTraceSettings, newPicture, traceOnSheet } from '@nuvet/core/job';
import { type Path, type Point, rectanglePath, reversedPath, transformedPath } from '@nuvet/core/plane';
import { type Block, type BlockPiece, blockOf, inchMm, plainQuilting } from '@nuvet/core/quilting';
import { offsetClosed, plainOffset } from '@nuvet/core/shape';
import { tracePicture } from '@nuvet/core/trace';
import { piece, type Scene, scanScene } from '@nuvet/truth';
import { type BlockDraft, drawnSeams } from './block-drafts.ts';

const sizeMm = 140;
const corner = { x: 20, y: 25 };
/** Patches are drawn apart by this, or lines are this wide, mm. */
const apartMm = 0.7;

export const drawings = ['patches', 'lines', 'lines by their middles'] as const;
export type Drawing = (typeof drawings)[number];

const shrunk = (path: Path, by: number): Path => offsetClosed(path, by, { ...plainOffset, corners: 'mitre', mitreLimit: 12 })[0] as Path;

/** The block as it was drafted, at its finished size. */
export const draftedBlock = (draft: BlockDraft): Block =>
  blockOf(drawnSeams(draft, sizeMm), { ...plainQuilting, finishedMm: draft.finishedIn * inchMm });

function sceneOf(draft: BlockDraft, drawing: Drawing): Scene {
  const { map } = blockOf(drawnSeams(draft, sizeMm), { ...plainQuilting, finishedMm: sizeMm });
  const faces = map.faces.map(({ outer }) =>
    shrunk(transformedPath(outer, { a: 1, b: 0, c: 0, d: 1, e: corner.x, f: corner.y }), apartMm / 2),
  );
  const whole = shrunk(rectanglePath({ minX: corner.x, minY: corner.y, maxX: corner.x + sizeMm, maxY: corner.y + sizeMm }), -apartMm / 2);
  const pieces = drawing === 'patches' ? faces.map((face) => piece(face)) : [piece(whole, faces.map(reversedPath))];
  return { name: `${draft.name} ${drawing}`, widthMm: 180, heightMm: 190, pieces, marks: {} };
}

/** What the tracing of a scan hands to quilting: tilted, noisy, straightened by one level line. */
export function scannedPieces(draft: BlockDraft, drawing: Drawing, dpi: number, tiltDegrees: number, seed: number): BlockPiece[] {
  const scan = scanScene(sceneOf(draft, drawing), { dpi, tiltDegrees, noise: 6, seed });
  const settings = { ...defaultTraceSettings, take: drawing === 'lines by their middles' ? ('network' as const) : ('shape' as const) };
  const traced = tracePicture(scan.picture, inchMm / dpi, settings);
  const { width: widthPx, height: heightPx } = scan.picture;
  const picture = newPicture({ id: '00000000-0000-4000-8000-000000000001', name: draft.name, widthPx, heightPx, resolution: { dpi, source: 'png', trusted: true } }); // biome-ignore format: one line
  const points = [corner, { x: corner.x + sizeMm, y: corner.y }].map((p: Point) => scan.at(p));
  const straight = { ...picture, marks: [{ id: 'level', kind: 'level' as const, points, stated: [] }] };
  return traceOnSheet(straight, settings, traced).pieces.map(({ id, outer, holes }) => ({ id, outer, holes }));
}
