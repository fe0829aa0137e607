'use client';
/** The solid in space, each body in a colour of its own, its true edges drawn; cut open at a height. */
import Box from '@mui/material/Box';
import { printBoth, printToType } from '@nuvet/core/length';
import type { PrintChecks, SolidPlan } from '@nuvet/core/solid';
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
  Points,
  PointsMaterial,
  type Raycaster,
  Vector3,
} from 'three';
import { useJob } from '@/job/job-store';
import { useMaking } from '@/table/making-store';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import type { PrintLayer } from '@/workers/maker.worker';
import { Space, SpaceScene } from '../Space';
import { type Place, setSolidSpace, useSolidSpace } from './solid-space-store';

export default function SolidInSpace() {
  const scene = useRef<SolidScene | null>(null);
  const unit = useJob((s) => s.job.unit);
  const plan = useMaking((s) => s.planned?.plan as SolidPlan | undefined);
  const { cutAtMm, layer, isAssembled, checks, measured } = useSolidSpace();
  useEffect(() => {
    // Corners of a solid that is another now are measured no more.
    setSolidSpace({ measured: [] });
    if (plan && 'filamentM' in plan) scene.current?.show(plan, isAssembled, checks);
  }, [plan, isAssembled, checks]);
  useEffect(() => {
    if (plan) scene.current?.openAt(cutAtMm, layer);
  }, [plan, cutAtMm, layer]);
  useEffect(() => scene.current?.showMeasured(measured), [measured]);
  return (
    <Box sx={{ position: 'relative', display: 'grid', minWidth: 0, minHeight: 0 }}>
      <Space label={words.solid.inSpace} Made={SolidScene} scene={scene} />
      <Box role="status" sx={{ position: 'absolute', left: 16, bottom: 12, px: 1, borderRadius: 1, bgcolor: colours.sheet, fontSize: 13 }}>
        {measured.length === 2 ? distanceSaid(measured, unit) : words.solid.measureAbout}
      </Box>
    </Box>
  );
}

function distanceSaid([a, b]: readonly Place[], unit: 'mm' | 'in'): string {
  if (!a || !b) return '';
  const by = [0, 1, 2].map((axis) => Math.abs((b[axis] as number) - (a[axis] as number))) as [number, number, number];
  const [x, y, z] = by.map((mm) => printToType(mm, unit)) as [string, string, string];
  return `${words.solid.measuredAt}: ${words.solid.distance(printBoth(Math.hypot(...by), unit), x, y, z)}`;
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
  private readonly overhanging = new MeshLambertMaterial({ color: colours.madder, side: DoubleSide, polygonOffset: true, polygonOffsetFactor: 0.5, polygonOffsetUnits: 0 }); // biome-ignore format: one line
  private readonly contours = new LineSegments(new BufferGeometry(), new LineBasicMaterial({ color: colours.verdigris }));
  private readonly ruled = new LineSegments(new BufferGeometry(), new LineBasicMaterial({ color: colours.madder, depthTest: false }));
  private readonly corners = new Points(new BufferGeometry(), new PointsMaterial({ color: colours.madder, size: 9, sizeAttenuation: false, depthTest: false })); // biome-ignore format: one line
  private size = '';

  constructor(element: HTMLDivElement) {
    super(element);
    this.renderer.localClippingEnabled = true;
    this.scene.add(this.bodies, this.contours, this.ruled, this.corners);
    this.onPick((ray) => this.pick(ray));
  }

  show(plan: SolidPlan, isAssembled: boolean, checks: PrintChecks | null): void {
    const { min, max } = plan;
    this.clear();
    for (const [k, { mesh, over }] of shownParts(plan, isAssembled, checks).entries()) {
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', new BufferAttribute(Float32Array.from(mesh.positions), 3));
      geometry.setIndex(new BufferAttribute(mesh.triangles, 1));
      geometry.computeVertexNormals();
      this.bodies.add(new Mesh(geometry, this.materials[k % this.materials.length]));
      if (over.length > 0) this.bodies.add(new Mesh(ofTriangles(geometry, mesh.triangles, over), this.overhanging));
      if (mesh.triangles.length / 3 < mostWithEdges) this.bodies.add(new LineSegments(new EdgesGeometry(geometry, edgeTurn), this.edges));
    }
    const size = [...min, ...max].map((v) => v.toFixed(0)).join(' ');
    if (size !== this.size) this.aim(min, max);
    this.size = size;
    this.draw();
  }

  openAt(cutAtMm: number | null, layer: PrintLayer | null): void {
    this.contours.geometry.dispose();
    this.contours.geometry = new BufferGeometry().setAttribute('position', new BufferAttribute(contourLines(layer), 3));

    this.section.constant = cutAtMm ?? 0;
    for (const material of [...this.materials, this.edges, this.overhanging]) {
      material.clippingPlanes = cutAtMm === null ? [] : [this.section];
      material.needsUpdate = true;
    }
    this.draw();
  }

  /** The corners that were clicked on, and the line between them. */
  showMeasured(places: readonly Place[]): void {
    for (const lines of [this.corners, this.ruled]) {
      lines.geometry.dispose();
      lines.geometry = new BufferGeometry().setAttribute('position', new BufferAttribute(Float32Array.from(places.flat()), 3));
    }
    this.ruled.visible = places.length === 2;
    this.draw();
  }

  /** The corner of the triangle in sight that lies nearest. */
  private pick(ray: Raycaster): void {
    const meshes = this.bodies.children.filter((child) => (child as Mesh).isMesh);
    const cutAt = this.materials[0]?.clippingPlanes?.length ? this.section.constant : Infinity;
    const hit = ray.intersectObjects(meshes, false).find(({ point }) => point.z <= cutAt);
    if (!hit?.face) return;
    const positions = (hit.object as Mesh).geometry.getAttribute('position');
    const corners = [hit.face.a, hit.face.b, hit.face.c].map((k) => new Vector3().fromBufferAttribute(positions, k));
    const { x, y, z } = corners.reduce((a, b) => (b.distanceTo(hit.point) < a.distanceTo(hit.point) ? b : a));
    const before = useSolidSpace.getState().measured;
    setSolidSpace({ measured: [...(before.length === 2 ? [] : before), [x, y, z]] });
  }

  private aim(min: SolidPlan['min'], max: SolidPlan['max']): void {
    const [x, y, z] = [0, 1, 2].map((axis) => ((min[axis] as number) + (max[axis] as number)) / 2) as [number, number, number];
    const far = 1.02 * Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
    this.look(new Vector3(x, y, z), new Vector3(x - 0.55 * far, y - 0.85 * far, z + 0.8 * far));
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

/** The bodies as they are made, each with its triangles that hang over; or pairs as they stand in one another. */
function shownParts({ parts, assembled }: SolidPlan, isAssembled: boolean, checks: PrintChecks | null) {
  const none = new Uint32Array(0);
  if (!isAssembled || assembled.length === 0) return parts.map(({ mesh }, k) => ({ mesh, over: checks?.overhanging[k] ?? none }));
  const standing = new Map(assembled.map(({ part, mesh }) => [part, mesh]));
  return parts.map(({ mesh }, k) => ({ mesh: standing.get(k) ?? mesh, over: none }));
}

function ofTriangles(geometry: BufferGeometry, triangles: Uint32Array, chosen: Uint32Array): BufferGeometry {
  const made = new BufferGeometry();
  made.setAttribute('position', geometry.getAttribute('position'));
  made.setAttribute('normal', geometry.getAttribute('normal'));
  made.setIndex(new BufferAttribute(Uint32Array.from({ length: 3 * chosen.length }, (_, k) => triangles[3 * (chosen[Math.floor(k / 3)] as number) + (k % 3)] as number), 1)); // biome-ignore format: one line
  return made;
}

function contourLines(layer: PrintLayer | null): Float32Array {
  const places = (layer?.contours ?? []).flatMap((contour) =>
    contour.flatMap((p, k) => {
      const q = contour[(k + 1) % contour.length] as { x: number; y: number };
      return [p.x, p.y, layer?.height ?? 0, q.x, q.y, layer?.height ?? 0];
    }),
  );
  return Float32Array.from(places);
}
