'use client';
/**
 * The stock in space as it is milled, with the tool: turned with the pointer, cut open along a line, coloured by depth or by operation.
 */
import { type MillPlan, type MillTool, profileOf, radiusOf, type TrialShown } from '@nuvet/core/milling';
import { useEffect, useRef } from 'react';
import {
  BufferAttribute,
  BufferGeometry,
  Color,
  DoubleSide,
  LatheGeometry,
  Mesh,
  MeshStandardMaterial,
  Plane,
  Vector2,
  Vector3,
} from 'three';
import { useMaking } from '@/table/making-store';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { Space, SpaceScene } from '../Space';
import { type ColourBy, useTrial } from './trial-store';

export default function StockView() {
  const scene = useRef<StockScene | null>(null);
  const plan = useMaking((s) => s.planned?.plan as MillPlan | undefined);
  const { shown, colourBy, sectionMm, look } = useTrial();
  useEffect(() => {
    if (shown && plan) scene.current?.show(shown, plan, colourBy);
  }, [shown, plan, colourBy]);
  useEffect(() => scene.current?.cutOpen(sectionMm), [sectionMm]);
  useEffect(() => {
    if (look) scene.current?.lookAt(look);
  }, [look]);
  return <Space label={words.cnc.stockInSpace} Made={StockScene} scene={scene} />;
}

const wood = new Color('#D9BE8C');
const deepWood = new Color('#8A6A3C');
const gone = new Color(colours.ground);
/** What is to be cleared and still stands. */
const standing = new Color(colours.madder);
/** One after another, for operations. */
const operationColours = ['#1E7B6B', '#A87B1D', '#7A4B86', '#35508F', '#B1452E', '#5B7F3A', '#2F6F8F', '#8A5A2B'].map(
  (hex) => new Color(hex),
);

/** The stock's heights and colours change as the time goes on; its grid only with the job. */
class StockScene extends SpaceScene {
  private readonly material = new MeshStandardMaterial({ vertexColors: true, roughness: 0.9, flatShading: true, side: DoubleSide });
  private readonly steel = new MeshStandardMaterial({ color: '#8E99A3', roughness: 0.35, metalness: 0.3 });
  private readonly section = new Plane(new Vector3(0, 1, 0), 0);
  private surface: Mesh | null = null;
  private tool: { of: MillTool; mesh: Mesh } | null = null;
  private grid = '';
  private low = 0;

  constructor(element: HTMLDivElement) {
    super(element);
    this.renderer.localClippingEnabled = true;
  }

  show(shown: TrialShown, plan: MillPlan, colourBy: ColourBy): void {
    const { columns, rows, box } = shown;
    const key = `${columns} ${rows} ${box.minX} ${box.minY} ${plan.bottomZ}`;
    if (key !== this.grid) this.lay(shown, plan.bottomZ);
    const isNew = key !== this.grid;
    this.grid = key;
    this.raise(shown, plan.bottomZ, colourBy);
    this.hold(shown, plan);
    if (isNew) this.aim(shown, plan.bottomZ);
    this.draw();
  }

  /** A grid of cells' middles, with a rim that goes down to the bottom round it. */
  private lay({ columns, rows, box }: TrialShown, bottomZ: number): void {
    if (this.surface) {
      this.scene.remove(this.surface);
      this.surface.geometry.dispose();
    }
    const [w, h] = [columns + 2, rows + 2];
    const position = new Float32Array(3 * w * h);
    const inside = (k: number, count: number, low: number, high: number): number =>
      low + ((Math.min(count, Math.max(1, k)) - 0.5) / count) * (high - low);
    for (let r = 0; r < h; r++)
      for (let c = 0; c < w; c++) {
        const at = 3 * (r * w + c);
        position[at] = c === 0 ? box.minX : c === w - 1 ? box.maxX : inside(c, columns, box.minX, box.maxX);
        position[at + 1] = r === 0 ? box.minY : r === h - 1 ? box.maxY : inside(r, rows, box.minY, box.maxY);
        position[at + 2] = bottomZ;
      }
    const index = new Uint32Array(6 * (w - 1) * (h - 1));
    let k = 0;
    for (let r = 0; r + 1 < h; r++)
      for (let c = 0; c + 1 < w; c++) {
        const a = r * w + c;
        for (const corner of [a, a + 1, a + w + 1, a, a + w + 1, a + w]) index[k++] = corner;
      }
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(position, 3));
    geometry.setAttribute('color', new BufferAttribute(new Float32Array(3 * w * h), 3));
    geometry.setIndex(new BufferAttribute(index, 1));
    this.surface = new Mesh(geometry, this.material);
    this.surface.frustumCulled = false;
    this.low = box.minY;
    this.scene.add(this.surface);
  }

  private raise({ columns, rows, heights, operations, stands }: TrialShown, bottomZ: number, colourBy: ColourBy): void {
    const geometry = this.surface?.geometry;
    if (!geometry) return;
    const [position, colour] = [geometry.getAttribute('position') as BufferAttribute, geometry.getAttribute('color') as BufferAttribute];
    const [w, h] = [columns + 2, rows + 2];
    const mixed = new Color();
    for (let r = 0; r < h; r++)
      for (let c = 0; c < w; c++) {
        const isRim = r === 0 || c === 0 || r === h - 1 || c === w - 1;
        const cell = Math.min(rows - 1, Math.max(0, r - 1)) * columns + Math.min(columns - 1, Math.max(0, c - 1));
        const z = heights[cell] as number;
        position.setZ(r * w + c, isRim ? bottomZ : Math.max(bottomZ, z));
        const operation = operations[cell] as number;
        if (z <= bottomZ + 1e-3) mixed.copy(gone);
        else if (colourBy === 'operation' && operation > 0 && !isRim)
          mixed.copy(operationColours[(operation - 1) % operationColours.length] as Color);
        else if (colourBy === 'left' && stands[cell] === 1 && !isRim) mixed.copy(standing);
        else mixed.copy(wood).lerp(deepWood, Math.sqrt(Math.min(1, z / bottomZ)));
        colour.setXYZ(r * w + c, mixed.r, mixed.g, mixed.b);
      }
    position.needsUpdate = true;
    colour.needsUpdate = true;
  }

  /** The tool where it is. */
  private hold({ at, run }: TrialShown, plan: MillPlan): void {
    const of = run === null ? undefined : plan.runs[run]?.tool;
    if (this.tool && this.tool.of !== of) {
      this.scene.remove(this.tool.mesh);
      this.tool.mesh.geometry.dispose();
      this.tool = null;
    }
    if (!of) return;
    if (!this.tool) {
      const mesh = new Mesh(toolGeometry(of), this.steel);
      mesh.rotation.x = Math.PI / 2;
      this.tool = { of, mesh };
      this.scene.add(mesh);
    }
    this.tool.mesh.position.set(at.x, at.y, at.z);
  }

  cutOpen(sectionMm: number | null): void {
    this.section.constant = -(this.low + (sectionMm ?? 0));
    this.material.clippingPlanes = sectionMm === null ? [] : [this.section];
    this.material.needsUpdate = true;
    this.draw();
  }

  /** From the front and above, so far off that all of the stock is seen. */
  private aim({ box }: TrialShown, bottomZ: number): void {
    const [x, y] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
    const size = Math.hypot(box.maxX - box.minX, box.maxY - box.minY);
    this.look(new Vector3(x, y, bottomZ / 2), new Vector3(x - size * 0.12, y - size * 0.95, size * 1.05));
  }

  /** Close up at a place. */
  lookAt({ x, y }: { x: number; y: number }): void {
    this.look(new Vector3(x, y, 0), new Vector3(x - 6, y - 22, 26));
  }

  override dispose(): void {
    this.surface?.geometry.dispose();
    this.tool?.mesh.geometry.dispose();
    super.dispose();
  }
}

/** A tool's outline turned about its axis, its tip at 0. */
function toolGeometry(tool: MillTool): LatheGeometry {
  const profile = profileOf(tool);
  const radius = radiusOf(tool);
  const places = Array.from({ length: 17 }, (_, k) => new Vector2((radius * k) / 16, profile((radius * k) / 16)));
  const top = (places.at(-1) as Vector2).y;
  return new LatheGeometry([...places, new Vector2(radius, Math.max(top + 4, 22)), new Vector2(0, Math.max(top + 4, 22))], 40);
}
