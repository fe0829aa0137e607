/** In: the cut of a wing panel. Out: templates of both its faces: the core to cut, the section, and ticks that answer to one another. */
import { bedsOf, coreOf, templateTicks, type WingCut } from '../../foam/index.ts';
import type { Piece } from '../../job/schema.ts';
import { type Path, pathBox, polygonPath, shift, transformedPath } from '../../plane/index.ts';

/** Round a template. */
const ticks = 40;
/** Between the templates of both faces on their sheet, and what of the block stays around a core, mm. */
const apartMm = 30;
const aroundMm = 10;

export interface FaceTemplate {
  readonly face: 'root' | 'tip';
  readonly core: Path;
  readonly section: Path;
  /** What stays of the block over the core, and under it. */
  readonly beds: readonly [upper: Path, lower: Path];
  readonly ticks: readonly Path[];
}

/** Each with its leading edge at the left, its lowest place at 0. */
export function faceTemplates({ faces, wire }: WingCut): FaceTemplate[] {
  return (['root', 'tip'] as const).map((face) => {
    const { section } = faces[face];
    const { minX, minY } = pathBox(section);
    const home = shift(-minX, -minY);
    const placed = (path: Path): Path => transformedPath(path, home);
    const { upper, lower } = bedsOf(faces[face], aroundMm);
    return {
      face,
      core: placed(polygonPath(coreOf(faces[face]))),
      section: placed(section),
      beds: [placed(upper), placed(lower)],
      ticks: templateTicks(wire, face, ticks).map(placed),
    };
  });
}

/** Both side by side as pieces: cores are cut, ticks scored. */
export function wingTemplates(cut: WingCut): Piece[] {
  let x = 0;
  return faceTemplates(cut).flatMap(({ face, core, section, beds, ticks }): Piece[] => {
    const move = shift(x, 0);
    x += pathBox(section).maxX + apartMm;
    const piece = (name: string, purpose: Piece['purpose'], outer: Path, k = 0): Piece => ({ id: `${face} ${name} ${k}`, name: `${face} ${name}`, purpose, leftOut: false, runsOff: false, outer: transformedPath(outer, move), holes: [] }); // biome-ignore format: one line
    // Beds lie below their template, apart from the core and from one another.
    const [upper, lower] = beds;
    const below = (path: Path, from: number): Path => transformedPath(path, shift(0, from - pathBox(path).maxY));
    const upperBed = below(upper, pathBox(core).minY - apartMm);
    const lowerBed = below(lower, pathBox(upperBed).minY - aroundMm);
    return [
      piece('core', 'cut', core),
      piece('section', 'guide', section),
      piece('upper bed', 'cut', upperBed),
      piece('lower bed', 'cut', lowerBed),
      ...ticks.map((path, k) => piece('tick', 'score', path, k + 1)),
    ];
  });
}
