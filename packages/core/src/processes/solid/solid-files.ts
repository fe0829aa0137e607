/** In: a solid's plan. Out: its files for printers and other programs, each read back from its bytes and compared with the solid. */
import { FileRefused } from '../../files/file-kinds.ts';
import {
  type FileMesh,
  type NamedMesh,
  read3mf,
  readGlb,
  readObj,
  readPly,
  readStl,
  write3mf,
  writeGlb,
  writeObj,
  writePly,
  writeStl,
} from '../../formats/mesh-files.ts';
import { say } from '../../messages/index.ts';
import { heightMapOf, openEdges, type SolidPlan, type SolidSettings, sizeOf, virtualPrint } from '../../solid/index.ts';
import { finished } from '../../steps.ts';
import type { ProcessFile, ProcessFileMade } from '../process.ts';

type SolidFile = ProcessFile<SolidSettings, SolidPlan>;

/** The stand-in for a printer lays down cells of this size, mm, in no more layers than this. */
const printCellMm = 0.2;
const mostPrintLayers = 60;
const mostGrey = 65_535;
/** Single floats keep a place of half a metre to this, mm. */
const roundedMm = 5e-5;
const colours = ['#1E7B6B', '#A87B1D', '#7A4B86', '#2F6F8F', '#B1452E'];

/** @param read the meshes that the file holds, one after another or all as one */
function madeFile({ parts, min, max }: SolidPlan, bytes: Uint8Array, read: readonly FileMesh[]): ProcessFileMade {
  for (const { mesh } of parts) if (openEdges(mesh) > 0) throw new FileRefused(say.solid.leaky());
  const asked = parts.flatMap(({ mesh }) => cornersOf(mesh));
  const found = read.flatMap(cornersOf);
  if (asked.length !== found.length) throw new FileRefused(say.solid.damaged());
  const largestMm = asked.reduce((most, value, k) => Math.max(most, Math.abs(value - (found[k] as number))), 0);
  return { bytes, largestMm, toleranceMm: roundedMm, widthMm: max[0] - min[0], heightMm: max[1] - min[1] };
}

/** The places of all corners, triangle by triangle. */
function cornersOf({ positions, triangles }: FileMesh): number[] {
  const made = new Array<number>(3 * triangles.length);
  for (let k = 0; k < triangles.length; k++) for (let axis = 0; axis < 3; axis++) made[3 * k + axis] = positions[3 * (triangles[k] as number) + axis] as number; // biome-ignore format: one line
  return made;
}

const named = ({ parts }: SolidPlan): readonly NamedMesh[] => parts;

export const solidFiles: Record<string, SolidFile> = {
  stl: {
    word: 'STL',
    about: 'Triangles in millimetres, as every printer takes them.',
    ending: 'stl',
    mediaType: 'model/stl',
    what: 'solid',
    async make({ settings }, plan) {
      const bytes = writeStl(named(plan));
      const read = readStl(bytes);
      const { layers, volumeMm3, cellMm } = finished(
        virtualPrint(read, Math.max(settings.layerMm, (plan.max[2] - plan.min[2]) / mostPrintLayers), printCellMm),
      );
      const printed = { layers: layers.length, cellMm, volumeMm3, largestLayerMm2: Math.max(...layers.map(({ areaMm2 }) => areaMm2)) };
      return { ...madeFile(plan, bytes, [read]), report: { printed } };
    },
  },
  '3mf': {
    word: '3MF',
    about: 'The same with its unit, names and colours, each body an object of its own.',
    ending: '3mf',
    mediaType: 'model/3mf',
    what: 'solid',
    async make({ title }, plan) {
      const bytes = write3mf(named(plan), title, colours);
      return madeFile(plan, bytes, read3mf(bytes).map(({ mesh }) => mesh)); // biome-ignore format: one line
    },
  },
  obj: {
    word: 'OBJ',
    about: 'Vertices and faces as text, for other programs.',
    ending: 'obj',
    mediaType: 'model/obj',
    what: 'solid',
    async make(_, plan) {
      const bytes = writeObj(named(plan));
      return madeFile(plan, bytes, [readObj(bytes)]);
    },
  },
  ply: {
    word: 'PLY',
    about: 'Vertices and faces in binary, for other programs.',
    ending: 'ply',
    mediaType: 'application/octet-stream',
    what: 'solid',
    async make(_, plan) {
      const bytes = writePly(named(plan));
      return madeFile(plan, bytes, [readPly(bytes)]);
    },
  },
  glb: {
    word: 'GLB',
    about: 'For showing on a page or a telephone, each body in a colour of its own.',
    ending: 'glb',
    mediaType: 'model/gltf-binary',
    what: 'solid',
    async make({ title }, plan) {
      const bytes = writeGlb(named(plan), title, colours);
      return madeFile(plan, bytes, readGlb(bytes).map(({ mesh }) => mesh)); // biome-ignore format: one line
    },
  },
  heights: {
    word: 'Height map',
    about: 'Heights seen from above as a grey PNG of 16 bits: black is the lowest, white the highest.',
    ending: 'png',
    mediaType: 'image/png',
    what: 'heights',
    isRaster: true,
    async make(_, plan, { dpi }) {
      const { encode, decode } = await import('fast-png');
      const { width, height, heights, rangeMm } = heightMapOf(plan, 25.4 / dpi);
      const perMm = mostGrey / Math.max(rangeMm, 1e-9);
      const bytes = encode({ width, height, data: Uint16Array.from(heights, (mm) => Math.round(perMm * mm)), depth: 16, channels: 1 });
      const read = decode(bytes);
      const isRight = read.width === width && read.height === height && read.depth === 16 && read.channels === 1;
      if (!isRight) throw new FileRefused(say.solid.damaged());
      const largestMm = heights.reduce((most, mm, k) => Math.max(most, Math.abs(mm - (read.data[k] as number) / perMm)), 0);
      return { bytes, largestMm, toleranceMm: 1.01 / perMm, widthMm: plan.max[0] - plan.min[0], heightMm: plan.max[1] - plan.min[1] };
    },
  },
};

/** What a report says of a solid. */
export const solidReport = ({ parts, min, max, volumeMm3, massG, filamentM, seconds, layers }: SolidPlan) => ({
  box: { min, max },
  volumeMm3,
  massG,
  filamentM,
  seconds,
  layers,
  bodies: parts.map(({ name, mesh }) => ({ name, volumeMm3: sizeOf(mesh).volumeMm3, areaMm2: sizeOf(mesh).areaMm2, triangles: mesh.triangles.length / 3, isClosed: openEdges(mesh) === 0 })), // biome-ignore format: one line
});
