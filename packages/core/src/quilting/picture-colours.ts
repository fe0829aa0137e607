/**
 * In: a quilt's plan, and the picture that its block was traced from. Out: fabrics in the picture's colours, and which patches are of which:
 * the middle colour of many places well inside each set of patches; sets whose colours look alike share a fabric.
 */
import { apply, isInside, type Path, type Point, pathBox, type Transform } from '../plane/index.ts';
import { hexOf, type Lab, labDistance, labOf, type Rgb } from '../raster/cielab.ts';
import type { ColourPicture } from '../raster/palette.ts';
import type { QuiltPlan } from './quilt-plan.ts';
import { type Fabric, mostFabrics, type QuiltingSettings } from './settings.ts';

/** Colours nearer than this look like one fabric, in CIELAB. */
const sameFabric = 14;
/** Places along each side of a patch's box that are looked at, and how far within its border they lie, as a share of its size. */
const looks = 14;
const withinShare = 0.06;

/**
 * @param toPicture from the finished block to the picture's pixels
 * @param nameOf what the nth fabric is called
 */
export function fabricsFromPicture(
  { block, sets }: QuiltPlan,
  picture: ColourPicture,
  toPicture: Transform,
  nameOf: (number: number) => string,
): Pick<QuiltingSettings, 'fabrics' | 'fabricOf'> {
  const found: { lab: Lab; rgb: Rgb }[] = [];
  const fabricOf: Record<string, number> = {};
  for (const { name, faces } of sets) {
    const rgb = middleColour(faces.flatMap((face) => coloursIn(block.map.faces[face]?.outer as Path, picture, toPicture)));
    if (!rgb) continue;
    const lab = labOf(rgb);
    const same = found.findIndex((one) => labDistance(one.lab, lab) < sameFabric);
    if (same < 0 && found.length < mostFabrics) found.push({ lab, rgb });
    fabricOf[name] = same >= 0 ? same : found.length - 1;
  }
  const fabrics = found.map(({ rgb }, k): Fabric => ({ name: nameOf(k + 1), colour: hexOf(rgb) }));
  return { fabrics, fabricOf };
}

function coloursIn(outline: Path, { width, height, data }: ColourPicture, toPicture: Transform): Rgb[] {
  const { minX, minY, maxX, maxY } = pathBox(outline);
  const inset = withinShare * Math.max(maxX - minX, maxY - minY);
  const colours: Rgb[] = [];
  for (let i = 0; i < looks; i++)
    for (let j = 0; j < looks; j++) {
      const p: Point = { x: minX + ((i + 0.5) / looks) * (maxX - minX), y: minY + ((j + 0.5) / looks) * (maxY - minY) };
      // Well within: also a little to each side of it.
      if (![[0, 0], [inset, 0], [-inset, 0], [0, inset], [0, -inset]].every(([x, y]) => isInside(outline, { x: p.x + (x as number), y: p.y + (y as number) }, 0.1))) continue; // biome-ignore format: one line
      const at = apply(toPicture, p);
      const [x, y] = [Math.floor(at.x), Math.floor(at.y)];
      if (x < 0 || y < 0 || x >= width || y >= height) continue;
      const k = 3 * (y * width + x);
      colours.push([data[k] as number, data[k + 1] as number, data[k + 2] as number]);
    }
  return colours;
}

/** The median of each channel; null of none. */
function middleColour(colours: readonly Rgb[]): Rgb | null {
  if (colours.length === 0) return null;
  const middle = (channel: 0 | 1 | 2): number => colours.map((rgb) => rgb[channel]).sort((a, b) => a - b)[colours.length >> 1] as number;
  return [middle(0), middle(1), middle(2)];
}
