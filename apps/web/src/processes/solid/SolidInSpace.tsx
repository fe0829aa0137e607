'use client';
/** The solid in space, each body in a colour of its own, its true edges drawn; cut open at a height. */
import type { SolidPlan } from '@nuvet/core/solid';
import { useEffect, useRef } from 'react';
import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  EdgesGeometry,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  Plane,
  Vector3,
} from 'three';
import { useMaking } from '@/table/making-store';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { Space, SpaceScene } from '../Space';
import { useSolidSpace } from './solid-space-store';

export default function SolidInSpace() {
  const scene = useRef<SolidScene | null>(null);
  const plan = useMaking((s) => s.planned?.plan as SolidPlan | undefined);
  const cutAtMm = useSolidSpace((s) => s.cutAtMm);
  useEffect(() => {
    if (plan && 'filamentM' in plan) scene.current?.show(plan);
  }, [plan]);
  useEffect(() => {
    if (plan) scene.current?.openAt(cutAtMm);
  }, [plan, cutAtMm]);
  return <Space label={words.solid.inSpace} Made={SolidScene} scene={scene} />;
}

const bodyColours = ['#D9CDB2', '#C9D6CB', '#D6C3D0', '#C6D2DE', '#E2C9BE'];
/** Edges that turn more than this are drawn, degrees. */
const edgeTurn = 28;
/** Solids of more triangles are drawn without their edges: finding those takes long. */
const mostWithEdges = 120_000;

class SolidScene extends SpaceScene {
  private readonly bodies = new Group();
  private readonly section = new Plane(new Vector3(0, 0, -1), 0);
  private readonly materials = bodyColours.map(
    (color) =>
      new MeshLambertMaterial({
        color,
        side: DoubleSide,
        flatShading: true,
        polygonOffset: true,
        polygonOffsetFactor: 1.5,
        polygonOffsetUnits: 2,
      }),
  );
  private readonly edges = new LineBasicMaterial({ color: colours.ink });
  private size = '';

  constructor(element: HTMLDivElement) {
    super(element);
    this.renderer.localClippingEnabled = true;
    this.scene.add(this.bodies);
  }

  show({ parts, min, max }: SolidPlan): void {
    this.clear();
    for (const [k, { mesh }] of parts.entries()) {
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', new BufferAttribute(Float32Array.from(mesh.positions), 3));
      geometry.setIndex(new BufferAttribute(mesh.triangles, 1));
      geometry.computeVertexNormals();
      this.bodies.add(new Mesh(geometry, this.materials[k % this.materials.length]));
      if (mesh.triangles.length / 3 < mostWithEdges) this.bodies.add(new LineSegments(new EdgesGeometry(geometry, edgeTurn), this.edges));
    }
    const size = [...min, ...max].map((v) => v.toFixed(0)).join(' ');
    if (size !== this.size) this.aim(min, max);
    this.size = size;
    this.draw();
  }

  openAt(cutAtMm: number | null): void {
    this.section.constant = cutAtMm ?? 0;
    for (const material of [...this.materials, this.edges]) {
      material.clippingPlanes = cutAtMm === null ? [] : [this.section];
      material.needsUpdate = true;
    }
    this.draw();
  }

  private aim(min: SolidPlan['min'], max: SolidPlan['max']): void {
    const [x, y, z] = [0, 1, 2].map((axis) => ((min[axis] as number) + (max[axis] as number)) / 2) as [number, number, number];
    const far = 1.02 * Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
    this.look(new Vector3(x, y, z), new Vector3(x - 0.25 * far, y - 0.95 * far, z + 0.9 * far));
  }

  private clear(): void {
    for (const child of this.bodies.children) (child as Mesh).geometry.dispose();
    this.bodies.clear();
  }

  override dispose(): void {
    this.clear();
    super.dispose();
  }
}
