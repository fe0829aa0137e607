'use client';
/**
 * The folded die line in space: panels of board with the picture on their outer side, turned with the pointer.
 */
import { collisions, foldedPanels, foldTree, type Panels, panelsOf } from '@nuvet/core/folding';
import type { Job, Piece } from '@nuvet/core/job';
import { apply, inverse } from '@nuvet/core/plane';
import { useEffect, useMemo, useRef } from 'react';
import {
  Box3,
  BufferGeometry,
  CanvasTexture,
  Color,
  DoubleSide,
  EdgesGeometry,
  Float32BufferAttribute,
  Group,
  LineBasicMaterial,
  LineSegments,
  Matrix4,
  Mesh,
  MeshStandardMaterial,
  Shape,
  ShapeUtils,
  SRGBColorSpace,
  Vector2,
  Vector3,
} from 'three';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import type { UnderlaySource } from '@/workers/maker.worker';
import { useJob } from '../../job/job-store';
import { Space, SpaceScene } from '../Space';
import { underlayFor } from '../underlay';
import { useFold } from './fold-store';

export default function FoldView({ pieces }: { pieces: readonly Piece[] }) {
  const job = useJob((s) => s.job);
  const { own, all } = useFold();
  const panels = useMemo(() => panelsOf(pieces), [pieces]);
  const tree = useMemo(() => foldTree(panels), [panels]);
  const scene = useRef<FoldScene | null>(null);
  const thickness = job.making.stock.thicknessMm ?? 0.5;
  useEffect(() => {
    scene.current?.show(panels, thickness);
  }, [panels, thickness]);
  const source = usePictureSource(job);
  useEffect(() => {
    let isWanted = true;
    if (source)
      void pictureOf(source).then((picture) => {
        if (isWanted && picture) scene.current?.dress(picture, source);
      });
    return () => {
      isWanted = false;
    };
  }, [source]);
  useEffect(() => {
    // The printed side is seen, and comes to lie outside.
    const motions = foldedPanels(
      panels,
      tree,
      panels.hinges.map((_, k) => -(own[k] ?? all)),
    );
    scene.current?.fold(motions, new Set(collisions(panels, motions).flat()));
  }, [panels, tree, own, all]);
  return <Space label={words.makeReady.theDieLineFoldedUp} Made={FoldScene} scene={scene} />;
}

/** Only a picture whose pixels lie straight on the sheet can be laid on the panels. */
function usePictureSource(job: Job): UnderlaySource | null {
  const { pictures, traces } = job;
  // biome-ignore lint/correctness/useExhaustiveDependencies: of the job only these bear on it
  return useMemo(() => underlayFor(job), [pictures, traces]);
}

/** Pictures are laid on the panels at most this large, px. */
const largestPx = 2048;

/** The picture, drawn from its tiles of the level that fits. */
async function pictureOf({ rasterId, widthPx, heightPx }: UnderlaySource): Promise<HTMLCanvasElement | null> {
  const factor = Math.max(1, Math.ceil(Math.max(widthPx, heightPx) / largestPx));
  const response = await fetch(`/api/pictures/${rasterId}/colours`);
  if (!response.ok) return null;
  const rgb = new Uint8Array(await response.arrayBuffer());
  const [w, h] = [Math.floor(widthPx / factor), Math.floor(heightPx / factor)];
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [w, h];
  const context = canvas.getContext('2d');
  if (!context) return null;
  const image = context.createImageData(w, h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const [from, to] = [3 * (y * factor * widthPx + x * factor), 4 * (y * w + x)];
      for (let c = 0; c < 3; c++) image.data[to + c] = rgb[from + c] as number;
      image.data[to + 3] = 255;
    }
  context.putImageData(image, 0, 0);
  return canvas;
}

const edgeColour = '#6B5A3A';
const flapStepMm = 0.1;

/** Dressed and folded as the job changes. */
class FoldScene extends SpaceScene {
  private readonly group = new Group();
  private readonly parts: Group[] = [];
  private readonly outside = new MeshStandardMaterial({ color: new Color('#E2CFA6'), roughness: 0.95, side: DoubleSide });
  private readonly inside = new MeshStandardMaterial({ color: new Color('#C9B48A'), roughness: 0.95, side: DoubleSide });
  private isAimed = false;
  private dressing: { picture: HTMLCanvasElement; source: UnderlaySource } | null = null;

  constructor(element: HTMLDivElement) {
    super(element);
    this.scene.add(this.group);
  }

  show({ panels }: Panels, thickness: number): void {
    for (const part of this.parts) this.group.remove(part);
    this.parts.length = 0;
    for (const [k, panel] of panels.entries()) {
      // Smaller flaps go in under larger ones, where they would lie in one plane.
      const under = -flapStepMm * k;
      const corners = panel.sides.map(({ from }) => new Vector2(from.x, from.y));
      const part = new Group();
      const faces = new Shape(corners);
      const flat = ShapeUtils.triangulateShape(faces.getPoints(), []);
      for (const [z, material] of [
        [thickness / 2, this.outside],
        [-thickness / 2, this.inside],
      ] as const) {
        const geometry = new BufferGeometry();
        geometry.setAttribute('position', new Float32BufferAttribute(corners.flatMap((p) => [p.x, p.y, z + under]), 3)); // biome-ignore format: one line
        geometry.setAttribute('uv', new Float32BufferAttribute(corners.flatMap(() => [0, 0]), 2)); // biome-ignore format: one line
        geometry.setIndex(flat.flat());
        geometry.computeVertexNormals();
        part.add(new Mesh(geometry, material));
        part.add(new LineSegments(new EdgesGeometry(geometry), new LineBasicMaterial({ color: edgeColour })));
      }
      part.matrixAutoUpdate = false;
      this.parts.push(part);
      this.group.add(part);
    }
    this.isAimed = false;
    if (this.dressing) this.dress(this.dressing.picture, this.dressing.source);
    this.draw();
  }

  /** Looks at what is folded from the front and above, so far off that all of it is seen. */
  private aim(): void {
    const box = new Box3();
    for (const part of this.parts) {
      const position = (part.children[0] as Mesh).geometry.getAttribute('position');
      for (let k = 0; k < position.count; k++) box.expandByPoint(new Vector3().fromBufferAttribute(position, k).applyMatrix4(part.matrix));
    }
    if (box.isEmpty()) return;
    const centre = box.getCenter(new Vector3());
    const size = box.getSize(new Vector3()).length();
    this.look(centre, new Vector3(centre.x - size * 0.55, centre.y - size * 0.95, centre.z + size * 0.85));
    this.isAimed = true;
  }

  /** The picture on the outer side, each corner where it lies on the sheet. */
  dress(picture: HTMLCanvasElement, source: UnderlaySource): void {
    this.dressing = { picture, source };
    const back = inverse(source.toSheet);
    const texture = new CanvasTexture(picture);
    texture.colorSpace = SRGBColorSpace;
    texture.anisotropy = 4;
    this.outside.map?.dispose();
    this.outside.map = texture;
    this.outside.color.set(0xffffff);
    this.outside.needsUpdate = true;
    for (const part of this.parts) {
      const { geometry } = part.children[0] as Mesh;
      const position = geometry.getAttribute('position');
      const uv = Array.from({ length: position.count }, (_, k) => {
        const p = apply(back, { x: position.getX(k), y: position.getY(k) });
        return [p.x / source.widthPx, 1 - p.y / source.heightPx];
      });
      geometry.setAttribute('uv', new Float32BufferAttribute(uv.flat(), 2));
    }
    this.draw();
  }

  /** Panels that run into others have their edges in madder. */
  fold(motions: ReturnType<typeof foldedPanels>, colliding: ReadonlySet<number>): void {
    this.parts.forEach((part, k) => {
      const motion = motions[k];
      if (!motion) return;
      const { r, t } = motion;
      part.matrix.copy(new Matrix4().set(r[0], r[1], r[2], t[0], r[3], r[4], r[5], t[1], r[6], r[7], r[8], t[2], 0, 0, 0, 1));
      part.matrixWorldNeedsUpdate = true;
      for (const child of part.children)
        if (child instanceof LineSegments) child.material.color.set(colliding.has(k) ? colours.madder : edgeColour);
    });
    if (!this.isAimed) this.aim();
    this.draw();
  }
}
