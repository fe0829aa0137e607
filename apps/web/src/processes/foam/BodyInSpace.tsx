'use client';
/** The body in space: its formers as thick as they are, stacked from the nose aft or drawn apart, cut open, the fair body over them. */
import type { FoamPlan, Slice } from '@nuvet/core/foam';
import { type Path, polygonOf } from '@nuvet/core/plane';
import { useEffect, useRef } from 'react';
import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  ExtrudeGeometry,
  Group,
  Mesh,
  MeshLambertMaterial,
  Plane,
  Shape,
  Path as ShapePath,
  Vector2,
  Vector3,
} from 'three';
import { useMaking } from '@/table/making-store';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { Space, SpaceScene } from '../Space';
import { useSpace } from './space-store';

export default function BodyInSpace() {
  const scene = useRef<BodyScene | null>(null);
  const plan = useMaking((s) => s.planned?.plan as FoamPlan | undefined);
  const { apartMm, cutAtMm, hasFairBody } = useSpace();
  useEffect(() => {
    if (plan && 'slices' in plan) scene.current?.show(plan);
  }, [plan]);
  useEffect(() => {
    if (plan) scene.current?.drawApart(apartMm);
  }, [plan, apartMm]);
  useEffect(() => {
    if (plan) scene.current?.openAt(cutAtMm, hasFairBody);
  }, [plan, cutAtMm, hasFairBody]);
  return <Space label={words.foam.bodyInSpace} Made={BodyScene} scene={scene} />;
}

const chordMm = 0.4;
/** Boards of one thickness have one colour. */
const foamColours = ['#E6D2C6', '#D6C3D0', '#C9D3C2', '#D9D0AE'];

/** The nose at the left; the body lies along x, up is z. */
class BodyScene extends SpaceScene {
  private readonly formers = new Group();
  private readonly fair = new MeshLambertMaterial({ color: colours.verdigris, transparent: true, opacity: 0.32, side: DoubleSide, depthWrite: false }); // biome-ignore format: one line
  private readonly section = new Plane(new Vector3(1, 0, 0), 0);
  private readonly foams: MeshLambertMaterial[] = [];
  private skin: Mesh | null = null;
  private size = '';

  constructor(element: HTMLDivElement) {
    super(element);
    this.renderer.localClippingEnabled = true;
    this.scene.add(this.formers);
  }

  show(plan: FoamPlan): void {
    this.clear();
    const thicknesses = [...new Set(plan.slices.map(({ thicknessMm }) => thicknessMm.toFixed(1)))];
    for (const slice of plan.slices) {
      const which = thicknesses.indexOf(slice.thicknessMm.toFixed(1)) % foamColours.length;
      this.foams[which] ??= new MeshLambertMaterial({ color: foamColours[which], side: DoubleSide });
      const mesh = new Mesh(formerGeometry(slice), this.foams[which]);
      mesh.userData.from = slice.from;
      this.formers.add(mesh);
    }
    this.skin = new Mesh(skinGeometry(plan.skin), this.fair);
    this.scene.add(this.skin);
    const size = `${plan.lengthMm.toFixed(0)} ${plan.widthMm.toFixed(0)} ${plan.heightMm.toFixed(0)}`;
    if (size !== this.size) this.aim(plan);
    this.size = size;
    this.draw();
  }

  drawApart(apartMm: number): void {
    const middle = (this.formers.children.length - 1) / 2;
    this.formers.children.forEach((mesh, k) => {
      mesh.position.x = mesh.userData.from + (k - middle) * apartMm;
    });
    this.draw();
  }

  openAt(cutAtMm: number | null, hasFairBody: boolean): void {
    this.section.constant = -(cutAtMm ?? 0);
    for (const material of [...this.foams.filter(Boolean), this.fair]) {
      material.clippingPlanes = cutAtMm === null ? [] : [this.section];
      material.needsUpdate = true;
    }
    if (this.skin) this.skin.visible = hasFairBody;
    this.draw();
  }

  private aim({ lengthMm, heightMm }: FoamPlan): void {
    this.look(new Vector3(lengthMm / 2, 0, heightMm / 2), new Vector3(lengthMm * 0.3, -lengthMm * 1.65, lengthMm * 0.8));
  }

  private clear(): void {
    for (const mesh of this.formers.children) (mesh as Mesh).geometry.dispose();
    this.formers.clear();
    if (!this.skin) return;
    this.scene.remove(this.skin);
    this.skin.geometry.dispose();
    this.skin = null;
  }

  override dispose(): void {
    this.clear();
    super.dispose();
  }
}

const placesOf = (path: Path): Vector2[] => polygonOf(path, chordMm).map(({ x, y }) => new Vector2(x, y));

/** A former from 0 to its thickness along x; across is y, seen from the nose. */
function formerGeometry({ outline, holes, thicknessMm }: Slice): ExtrudeGeometry {
  const shape = new Shape(placesOf(outline));
  shape.holes = holes.map((hole) => new ShapePath(placesOf(hole)));
  const geometry = new ExtrudeGeometry(shape, { depth: thicknessMm, bevelEnabled: false });
  // The drawing's across, up and depth become across, up and along.
  geometry.rotateX(Math.PI / 2);
  geometry.rotateZ(Math.PI / 2);
  return geometry;
}

/** The fair body as a net over its sections. */
function skinGeometry(skin: FoamPlan['skin']): BufferGeometry {
  const around = skin[0]?.places.length ?? 0;
  const position = Float32Array.from(skin.flatMap(({ atMm, places }) => places.flatMap(({ x, y }) => [atMm, x, y])));
  const index: number[] = [];
  for (let s = 0; s + 1 < skin.length; s++)
    for (let k = 0; k < around; k++) {
      const [a, b] = [s * around + k, s * around + ((k + 1) % around)];
      index.push(a, b, b + around, a, b + around, a + around);
    }
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(position, 3));
  geometry.setIndex(index);
  geometry.computeVertexNormals();
  return geometry;
}
