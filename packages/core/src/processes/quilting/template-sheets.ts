/** In: a quilt's plan and the stock. Out: its templates as pieces laid out on sheets of the stock, one sheet beside the next. */
import { FileRefused } from '../../files/file-kinds.ts';
import type { Piece } from '../../job/schema.ts';
import { say } from '../../messages/index.ts';
import { mostSheets, type NestingPart, nestedOnSheets } from '../../nesting/index.ts';
import { chain, identity, type Path, reversedPath, shift, stretch, type Transform, transformedPath } from '../../plane/index.ts';
import type { QuiltingSettings, QuiltPlan, Template } from '../../quilting/index.ts';
import { finished } from '../../steps.ts';
import type { Work } from '../process.ts';

/** Of stock whose size is not known, mm. */
const plainSheet = { widthMm: 600, heightMm: 400 };
const marginMm = 4;
const gapMm = 4;
const betweenSheetsMm = 20;
const angles = [0, Math.PI / 2, Math.PI, (3 * Math.PI) / 2];

/** A template, as it is or turned over, and how often it is cut. */
interface Copies {
  readonly template: Template;
  readonly over: Transform;
  readonly count: number;
}

function copiesOf(template: Template, copies: QuiltingSettings['copies'], blocks: number): Copies[] {
  if (copies === 'one each') return [{ template, over: identity, count: 1 }];
  const times = copies === 'for a block' ? 1 : blocks;
  const { count, reversed } = template;
  return [
    { template, over: identity, count: (count - reversed) * times },
    { template, over: stretch(-1, 1), count: reversed * times },
  ].filter((one) => one.count > 0);
}

/** @throws FileRefused where a template is larger than the stock, or there are far too many */
export function templatesOnSheets({ settings, stock }: Work<QuiltingSettings>, { templates, quilt }: QuiltPlan): Piece[] {
  const { widthMm, heightMm } = { widthMm: stock.widthMm ?? plainSheet.widthMm, heightMm: stock.heightMm ?? plainSheet.heightMm };
  const all = templates.flatMap((template) => copiesOf(template, settings.copies, quilt.blocks.length));
  const count = all.reduce((sum, one) => sum + one.count, 0);
  if (count > mostCopies) throw new FileRefused(say.quilting.tooManyCopies(count, mostCopies));
  const parts = all.map((one): NestingPart => ({ outer: turnedOver(one.template.cutting, one.over), holes: [], count: one.count }));
  const { placed, tooLarge, left } = finished(nestedOnSheets(parts, { widthMm, heightMm, marginMm, gapMm, angles }));
  const [large] = tooLarge;
  if (large !== undefined) throw new FileRefused(say.quilting.largerThanStock((all[large] as Copies).template.shape.name, { mm: widthMm }, { mm: heightMm })); // biome-ignore format: one line
  if (left > 0) throw new FileRefused(say.quilting.tooManySheets(mostSheets));
  return placed.flatMap(({ part, sheet, place }, k): Piece[] => {
    const { template, over } = all[part] as Copies;
    const to = chain(shift(sheet * (widthMm + betweenSheetsMm), 0), place);
    const { name } = template.shape;
    const piece = (purpose: Piece['purpose'], path: Path): Piece => ({ id: `${name} ${k} ${purpose}`, name, purpose, leftOut: false, runsOff: false, outer: transformedPath(turnedOver(path, over), to), holes: [] }); // biome-ignore format: one line
    return [piece('cut', template.cutting), piece('score', template.sewing)];
  });
}
const mostCopies = 2000;

/** Counter-clockwise also where it is turned over. */
const turnedOver = (path: Path, over: Transform): Path => (over === identity ? path : reversedPath(transformedPath(path, over)));
