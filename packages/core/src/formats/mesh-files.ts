/**
 * In: closed meshes by name. Out: files for printers and for other programs, and the meshes that such files hold.
 * Rests on: STL, 3D Systems 1989, "Stereolithography Interface Specification" (binary: 80 bytes of header, a count, 50 bytes a triangle);
 * 3MF, 3MF Consortium, "3D Manufacturing Format, Core Specification", version 1.3 (a package of parts by OPC, a model in XML); OBJ, Wavefront
 * (v and f lines); PLY, Turk 1994 (binary little endian).
 */
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { SaxesParser } from 'saxes';
import { SaidError, say } from '../messages/index.ts';

/** As `solid/mesh.ts` has it; mm. */
export interface FileMesh {
  readonly positions: Float64Array;
  readonly triangles: Uint32Array;
}
export interface NamedMesh {
  readonly name: string;
  readonly mesh: FileMesh;
}

export class MeshFileError extends SaidError {
  readonly code = 'no-mesh';
}

/** Readers take no more triangles than this, and no more text. */
export const mostTriangles = 5_000_000;
const mostModelBytes = 400_000_000;

const count = (meshes: readonly NamedMesh[]): number => meshes.reduce((sum, { mesh }) => sum + mesh.triangles.length / 3, 0);
type Corner = readonly [number, number, number];
const cornerOf = ({ positions }: FileMesh, vertex: number): Corner => [positions[3 * vertex] as number, positions[3 * vertex + 1] as number, positions[3 * vertex + 2] as number]; // biome-ignore format: one line

export function writeStl(meshes: readonly NamedMesh[]): Uint8Array {
  const view = new DataView(new ArrayBuffer(84 + 50 * count(meshes)));
  view.setUint32(80, count(meshes), true);
  let at = 84;
  const put = (corner: readonly number[]): void => {
    for (const value of corner) {
      view.setFloat32(at, value, true);
      at += 4;
    }
  };
  for (const { mesh } of meshes)
    for (let k = 0; k < mesh.triangles.length; k += 3) {
      const corners = [0, 1, 2].map((j) => cornerOf(mesh, mesh.triangles[k + j] as number)) as [Corner, Corner, Corner];
      put(normalOf(corners));
      for (const corner of corners) put(corner);
      at += 2;
    }
  return new Uint8Array(view.buffer);
}

function normalOf([a, b, c]: readonly [Corner, Corner, Corner]): Corner {
  const [u, v] = [[b[0] - a[0], b[1] - a[1], b[2] - a[2]], [c[0] - a[0], c[1] - a[1], c[2] - a[2]]] as [[number, number, number], [number, number, number]]; // biome-ignore format: one line
  const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]] as const;
  const size = Math.hypot(...n) || 1;
  return [n[0] / size, n[1] / size, n[2] / size];
}

/** Corners at the same place are one vertex. @throws MeshFileError where it is no binary STL */
export function readStl(bytes: Uint8Array): FileMesh {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 84) throw new MeshFileError(say.solid.damaged());
  const triangleCount = view.getUint32(80, true);
  if (triangleCount > mostTriangles) throw new MeshFileError(say.solid.tooLarge(mostTriangles));
  if (bytes.length !== 84 + 50 * triangleCount) throw new MeshFileError(say.solid.damaged());
  const known = new Map<string, number>();
  const positions: number[] = [];
  const triangles = new Uint32Array(3 * triangleCount);
  for (let k = 0; k < 3 * triangleCount; k++) {
    const at = 84 + 50 * Math.floor(k / 3) + 12 + 12 * (k % 3);
    const place = [view.getFloat32(at, true), view.getFloat32(at + 4, true), view.getFloat32(at + 8, true)];
    if (!place.every(Number.isFinite)) throw new MeshFileError(say.solid.damaged());
    const key = place.join(' ');
    let vertex = known.get(key);
    if (vertex === undefined) {
      vertex = positions.length / 3;
      known.set(key, vertex);
      positions.push(...place);
    }
    triangles[k] = vertex;
  }
  return { positions: Float64Array.from(positions), triangles };
}

/** As many digits as a place is exact to: a ten-thousandth of a millimetre. */
const figure = (mm: number): string => String(Number(mm.toFixed(5)));

export function writeObj(meshes: readonly NamedMesh[]): Uint8Array {
  const lines = ['# Nuvet, mm'];
  let first = 1;
  for (const { name, mesh } of meshes) {
    lines.push(`o ${name.replace(/\s+/g, '_') || 'solid'}`);
    for (let k = 0; k < mesh.positions.length; k += 3) lines.push(`v ${[0, 1, 2].map((axis) => figure(mesh.positions[k + axis] as number)).join(' ')}`); // biome-ignore format: one line
    for (let k = 0; k < mesh.triangles.length; k += 3) lines.push(`f ${[0, 1, 2].map((j) => first + (mesh.triangles[k + j] as number)).join(' ')}`); // biome-ignore format: one line
    first += mesh.positions.length / 3;
  }
  return strToU8(`${lines.join('\n')}\n`);
}

/** All objects as one mesh. @throws MeshFileError where a line means nothing */
export function readObj(bytes: Uint8Array): FileMesh {
  const positions: number[] = [];
  const triangles: number[] = [];
  for (const line of strFromU8(bytes).split('\n')) {
    const [word, ...rest] = line.trim().split(/\s+/);
    if (word === 'v') positions.push(...rest.slice(0, 3).map(Number));
    else if (word === 'f') {
      if (rest.length !== 3 || triangles.length >= 3 * mostTriangles) throw new MeshFileError(say.solid.damaged());
      triangles.push(...rest.map((corner) => Number(corner.split('/')[0]) - 1));
    }
  }
  return checked(positions, triangles);
}

export function writePly(meshes: readonly NamedMesh[]): Uint8Array {
  const vertices = meshes.reduce((sum, { mesh }) => sum + mesh.positions.length / 3, 0);
  const header = strToU8(`ply\nformat binary_little_endian 1.0\ncomment Nuvet, mm\nelement vertex ${vertices}\nproperty float x\nproperty float y\nproperty float z\nelement face ${count(meshes)}\nproperty list uchar int vertex_indices\nend_header\n`); // biome-ignore format: one line
  const bytes = new Uint8Array(header.length + 12 * vertices + 13 * count(meshes));
  bytes.set(header);
  const view = new DataView(bytes.buffer);
  let at = header.length;
  for (const { mesh } of meshes)
    for (const value of mesh.positions) {
      view.setFloat32(at, value, true);
      at += 4;
    }
  let first = 0;
  for (const { mesh } of meshes) {
    for (let k = 0; k < mesh.triangles.length; k += 3) {
      view.setUint8(at++, 3);
      for (let j = 0; j < 3; j++) {
        view.setInt32(at, first + (mesh.triangles[k + j] as number), true);
        at += 4;
      }
    }
    first += mesh.positions.length / 3;
  }
  return bytes;
}

/** Of the kind that `writePly` makes. @throws MeshFileError where it is another, or cut short */
export function readPly(bytes: Uint8Array): FileMesh {
  const head = strFromU8(bytes.subarray(0, 1000), true);
  const end = head.indexOf('end_header\n');
  const [vertices, faces] = [/element vertex (\d+)/, /element face (\d+)/].map((pattern) => Number(pattern.exec(head)?.[1] ?? Number.NaN)) as [number, number]; // biome-ignore format: one line
  const start = end + 'end_header\n'.length;
  if (end < 0 || !/format binary_little_endian/.test(head) || bytes.length !== start + 12 * vertices + 13 * faces) throw new MeshFileError(say.solid.damaged()); // biome-ignore format: one line
  if (faces > mostTriangles) throw new MeshFileError(say.solid.tooLarge(mostTriangles));
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const positions = Array.from({ length: 3 * vertices }, (_, k) => view.getFloat32(start + 4 * k, true));
  const triangles = Array.from({ length: 3 * faces }, (_, k) => view.getInt32(start + 12 * vertices + 13 * Math.floor(k / 3) + 1 + 4 * (k % 3), true)); // biome-ignore format: one line
  return checked(positions, triangles);
}

function checked(positions: readonly number[], triangles: readonly number[]): FileMesh {
  const vertices = positions.length / 3;
  const isRight =
    Number.isInteger(vertices) && positions.every(Number.isFinite) && triangles.every((v) => Number.isInteger(v) && v >= 0 && v < vertices);
  if (!isRight) throw new MeshFileError(say.solid.damaged());
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

const coreNamespace = 'http://schemas.microsoft.com/3dmanufacturing/core/2015/02';
const modelPath = '3D/3dmodel.model';
const entities: Readonly<Record<string, string>> = { '<': '&lt;', '>': '&gt;', '&': '&amp;', '"': '&quot;' };
/** By name: there are readers of 3MF that know no numbers. */
const escaped = (text: string): string => text.replace(/[<>&"]/g, (c) => entities[c] as string).replace(/[^\x20-\uffff]/g, ' ');

/** @param colours of the objects in turn, as #RRGGBB */
export function write3mf(meshes: readonly NamedMesh[], title: string, colours: readonly string[]): Uint8Array {
  const materials = meshes.map(({ name }, k) => `<base name="${escaped(name || title)}" displaycolor="${colours[k % colours.length]}"/>`);
  const objects = meshes.map(({ name, mesh }, k) => {
    const vertices: string[] = [];
    for (let v = 0; v < mesh.positions.length; v += 3) vertices.push(`<vertex x="${figure(mesh.positions[v] as number)}" y="${figure(mesh.positions[v + 1] as number)}" z="${figure(mesh.positions[v + 2] as number)}"/>`); // biome-ignore format: one line
    const triangles: string[] = [];
    for (let t = 0; t < mesh.triangles.length; t += 3) triangles.push(`<triangle v1="${mesh.triangles[t]}" v2="${mesh.triangles[t + 1]}" v3="${mesh.triangles[t + 2]}"/>`); // biome-ignore format: one line
    return `<object id="${k + 2}" type="model" name="${escaped(name || title)}" pid="1" pindex="${k}"><mesh><vertices>${vertices.join('')}</vertices><triangles>${triangles.join('')}</triangles></mesh></object>`; // biome-ignore format: one line
  });
  const items = meshes.map((_, k) => `<item objectid="${k + 2}"/>`);
  const model = `<?xml version="1.0" encoding="UTF-8"?>\n<model unit="millimeter" xml:lang="en-US" xmlns="${coreNamespace}"><metadata name="Title">${escaped(title)}</metadata><resources><basematerials id="1">${materials.join('')}</basematerials>${objects.join('')}</resources><build>${items.join('')}</build></model>`; // biome-ignore format: one line
  const types = '<?xml version="1.0" encoding="UTF-8"?>\n<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>'; // biome-ignore format: one line
  const relations = `<?xml version="1.0" encoding="UTF-8"?>\n<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/${modelPath}" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`; // biome-ignore format: one line
  const files = { '[Content_Types].xml': strToU8(types), '_rels/.rels': strToU8(relations), [modelPath]: strToU8(model) };
  // The same bytes on any day.
  return zipSync(files, { level: 6, mtime: new Date(2026, 0, 1) });
}

/** The objects of a model in millimetres. @throws MeshFileError where the package or its model is damaged, or far too large */
export function read3mf(bytes: Uint8Array): NamedMesh[] {
  let model: Uint8Array | undefined;
  try {
    model = unzipSync(bytes, { filter: ({ name, originalSize }) => name === modelPath && originalSize <= mostModelBytes })[modelPath];
  } catch {
    throw new MeshFileError(say.solid.damaged());
  }
  if (!model) throw new MeshFileError(say.solid.damaged());
  const meshes: { name: string; positions: number[]; triangles: number[] }[] = [];
  let unit = '';
  const parser = new SaxesParser();
  parser.on('error', () => {
    throw new MeshFileError(say.solid.damaged());
  });
  parser.on('opentag', ({ name, attributes }) => {
    const numbers = (keys: readonly string[]): number[] => keys.map((key) => Number(attributes[key] ?? Number.NaN));
    if (name === 'model') unit = String(attributes.unit);
    else if (name === 'object') meshes.push({ name: String(attributes.name ?? ''), positions: [], triangles: [] });
    else if (name === 'vertex') meshes.at(-1)?.positions.push(...numbers(['x', 'y', 'z']));
    else if (name === 'triangle') meshes.at(-1)?.triangles.push(...numbers(['v1', 'v2', 'v3']));
  });
  parser.write(strFromU8(model)).close();
  if (unit !== 'millimeter' || meshes.length === 0) throw new MeshFileError(say.solid.damaged());
  return meshes.map(({ name, positions, triangles }) => ({ name, mesh: checked(positions, triangles) }));
}

const glbMagic = 0x46546c67;
const [jsonChunk, binaryChunk] = [0x4e4f534a, 0x004e4942];
const mmToM = 0.001;
const filledTo4 = (length: number): number => 4 * Math.ceil(length / 4);

/**
 * For showing: metres, and y upwards, as its readers expect; triangles are flat. Rests on: Khronos Group, "glTF 2.0 Specification" (ISO/IEC 12113).
 * @param colours of the objects in turn, as #RRGGBB
 */
export function writeGlb(meshes: readonly NamedMesh[], title: string, colours: readonly string[]): Uint8Array {
  const views: object[] = [];
  const accessors: object[] = [];
  const buffers: Uint8Array[] = [];
  let length = 0;
  const put = (bytes: Uint8Array, target: number): number => {
    views.push({ buffer: 0, byteOffset: length, byteLength: bytes.length, target });
    buffers.push(bytes);
    length += filledTo4(bytes.length);
    return views.length - 1;
  };
  const made = meshes.map(({ name, mesh }, k) => {
    const positions = new Float32Array(mesh.positions.length);
    for (let v = 0; v < positions.length; v += 3) {
      const [x, y, z] = cornerOf(mesh, v / 3);
      positions.set([mmToM * x, mmToM * z, -mmToM * y], v);
    }
    const corner = (pick: (...values: number[]) => number): number[] => [0, 1, 2].map((axis) => positions.filter((_, v) => v % 3 === axis).reduce((a, b) => pick(a, b))); // biome-ignore format: one line
    accessors.push({ bufferView: put(new Uint8Array(positions.buffer), 34962), componentType: 5126, count: positions.length / 3, type: 'VEC3', min: corner(Math.min), max: corner(Math.max) }); // biome-ignore format: one line
    accessors.push({ bufferView: put(new Uint8Array(Uint32Array.from(mesh.triangles).buffer), 34963), componentType: 5125, count: mesh.triangles.length, type: 'SCALAR' }); // biome-ignore format: one line
    return { name: name || title, primitives: [{ attributes: { POSITION: 2 * k }, indices: 2 * k + 1, material: k % colours.length }] };
  });
  const model = {
    asset: { version: '2.0', generator: 'Nuvet' },
    scene: 0,
    scenes: [{ name: title, nodes: made.map((_, k) => k) }],
    nodes: made.map(({ name }, k) => ({ name, mesh: k })),
    meshes: made,
    materials: colours.map((colour) => ({ pbrMetallicRoughness: { baseColorFactor: [...linear(colour), 1], metallicFactor: 0, roughnessFactor: 0.8 } })), // biome-ignore format: one line
    accessors,
    bufferViews: views,
    buffers: [{ byteLength: length }],
  };
  const json = strToU8(JSON.stringify(model));
  const bytes = new Uint8Array(12 + 8 + filledTo4(json.length) + 8 + length);
  const view = new DataView(bytes.buffer);
  const header = [glbMagic, 2, bytes.length, filledTo4(json.length), jsonChunk];
  for (const [k, word] of header.entries()) view.setUint32(4 * k, word, true);
  bytes.fill(0x20, 20, 20 + filledTo4(json.length));
  bytes.set(json, 20);
  let at = 20 + filledTo4(json.length);
  view.setUint32(at, length, true);
  view.setUint32(at + 4, binaryChunk, true);
  at += 8;
  for (const part of buffers) {
    bytes.set(part, at);
    at += filledTo4(part.length);
  }
  return bytes;
}

/** From the colours of screens to amounts of light (IEC 61966-2-1). */
const linear = (colour: string): number[] =>
  [1, 3, 5].map((at) => {
    const share = Number.parseInt(colour.slice(at, at + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });

/** The objects of a file that `writeGlb` made, in millimetres with z upwards. @throws MeshFileError where it is another, or cut short */
export function readGlb(bytes: Uint8Array): NamedMesh[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 28 || view.getUint32(0, true) !== glbMagic || view.getUint32(8, true) !== bytes.length)
    throw new MeshFileError(say.solid.damaged());
  const jsonLength = view.getUint32(12, true);
  const start = 20 + jsonLength + 8;
  if (start > bytes.length || view.getUint32(16, true) !== jsonChunk || view.getUint32(start - 4, true) !== binaryChunk) throw new MeshFileError(say.solid.damaged()); // biome-ignore format: one line
  try {
    const model = JSON.parse(strFromU8(bytes.subarray(20, 20 + jsonLength))) as GlbModel;
    const words = (accessor: number): DataView => {
      const { byteOffset, byteLength } = model.bufferViews[(model.accessors[accessor] as GlbModel['accessors'][0]).bufferView] as GlbModel['bufferViews'][0]; // biome-ignore format: one line
      return new DataView(bytes.buffer, bytes.byteOffset + start + byteOffset, byteLength);
    };
    return model.meshes.map(({ name, primitives: [primitive] }) => {
      const [places, corners] = [words(primitive.attributes.POSITION), words(primitive.indices)];
      const value = (k: number): number => places.getFloat32(4 * k, true) / mmToM;
      const positions = Array.from({ length: places.byteLength / 4 }, (_, k) =>
        k % 3 === 0 ? value(k) : k % 3 === 1 ? -value(k + 1) : value(k - 1),
      );
      return {
        name,
        mesh: checked(
          positions,
          Array.from({ length: corners.byteLength / 4 }, (_, k) => corners.getUint32(4 * k, true)),
        ),
      };
    });
  } catch (error) {
    if (error instanceof MeshFileError) throw error;
    throw new MeshFileError(say.solid.damaged());
  }
}

interface GlbModel {
  readonly meshes: readonly { readonly name: string; readonly primitives: readonly [{ readonly attributes: { readonly POSITION: number }; readonly indices: number }] }[]; // biome-ignore format: one line
  readonly accessors: readonly { readonly bufferView: number }[];
  readonly bufferViews: readonly { readonly byteOffset: number; readonly byteLength: number }[];
}
