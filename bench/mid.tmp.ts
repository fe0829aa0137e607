import { fullSheetScene, piece, scanScene } from '@nuvet/truth';
import { wallsOf, tracePicture, plainTraceSettings } from '@nuvet/core/trace';
import { pathArea } from '@nuvet/core/plane';
const strokes = fullSheetScene().pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
const pieces = strokes.flatMap((path) => { const [outer, ...holes] = wallsOf([path], 0.9, 0.01).sort((a, b) => Math.abs(pathArea(b)) - Math.abs(pathArea(a))); return outer ? [piece(outer, holes)] : []; });
const { picture, mmPerPx } = scanScene({ ...fullSheetScene(), pieces }, { dpi: 600, tiltDegrees: 1, noise: 5 });
for (let k = 0; k < 2; k++) { const s = performance.now(); const t = tracePicture(picture, mmPerPx, { ...plainTraceSettings, take: 'network' }); console.log(t.pieces.length, performance.now() - s, t.pieces.reduce((n, p) => n + p.outer.segments.length, 0)); }
