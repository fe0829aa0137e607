'use client';
/**
 * A scene in space and its frame: lit from above, turned with the pointer, drawn only when something changes.
 */
import Frame from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { type RefObject, useEffect, useRef, useState } from 'react';
import { AmbientLight, Color, DirectionalLight, PerspectiveCamera, Raycaster, Scene, Vector2, type Vector3, WebGLRenderer } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { colours } from '@/ui/colours';
import { words } from '@/words';

interface Props<S extends SpaceScene> {
  readonly label: string;
  readonly Made: new (element: HTMLDivElement) => S;
  /** Where the scene lies once the frame stands: also for the effects of whoever shows the frame. */
  readonly scene: RefObject<S | null>;
}

export function Space<S extends SpaceScene>({ label, Made, scene }: Props<S>) {
  const frame = useRef<HTMLDivElement>(null);
  const [isBlind, setBlind] = useState(false);
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    try {
      const made = new Made(element);
      scene.current = made;
      return () => {
        made.dispose();
        scene.current = null;
      };
    } catch {
      // Without WebGL the docket still tells what was measured.
      setBlind(true);
      return undefined;
    }
  }, [Made, scene]);
  return (
    <Frame
      ref={frame}
      role="img"
      aria-label={label}
      sx={{ position: 'relative', overflow: 'hidden', bgcolor: colours.ground, cursor: 'grab' }}
    >
      {isBlind && (
        <Typography color="textSecondary" sx={{ p: 4 }}>
          {words.makeReady.the3dViewNeedsWebglWhich}
        </Typography>
      )}
    </Frame>
  );
}

/** A pointer that moved more than this between press and release dragged, px. */
const mostDragPx = 4;
/** While it is turned a scene that the processor draws is drawn this much coarser. */
const coarse = 0.5;

/** Whether WebGL is drawn by the processor: its name says so where it is told. */
function isDrawnBySoftware(): boolean {
  const gl = document.createElement('canvas').getContext('webgl');
  const told = gl?.getExtension('WEBGL_debug_renderer_info');
  const name = gl && told ? String(gl.getParameter(told.UNMASKED_RENDERER_WEBGL)) : '';
  gl?.getExtension('WEBGL_lose_context')?.loseContext();
  return /swiftshader|llvmpipe|software|basic render/i.test(name);
}

/** The scene, apart from React: made once, changed by what is shown in it; up is z. */
export class SpaceScene {
  protected readonly scene = new Scene();
  private readonly isSlow = isDrawnBySoftware();
  protected readonly renderer = new WebGLRenderer({ antialias: !this.isSlow, preserveDrawingBuffer: true });
  private readonly camera = new PerspectiveCamera(37, 1, 1, 20_000);
  private readonly controls: OrbitControls;
  private readonly observer: ResizeObserver;
  private waiting = 0;

  constructor(private readonly element: HTMLDivElement) {
    this.renderer.setPixelRatio(this.fineRatio);
    element.appendChild(this.renderer.domElement);
    this.renderer.domElement.style.display = 'block';
    this.scene.background = new Color(colours.ground);
    const sun = new DirectionalLight(0xffffff, 2);
    sun.position.set(-1, -1.2, 2);
    this.scene.add(new AmbientLight(0xffffff, 1.4), sun);
    this.camera.up.set(0, 0, 1);
    this.controls = new OrbitControls(this.camera, this.renderer.domElement);
    this.controls.addEventListener('change', () => this.draw());
    if (this.isSlow) {
      this.controls.addEventListener('start', () => this.renderer.setPixelRatio(coarse));
      this.controls.addEventListener('end', () => {
        this.renderer.setPixelRatio(this.fineRatio);
        this.draw();
      });
    }
    this.observer = new ResizeObserver(() => this.measure());
    this.observer.observe(element);
    this.measure();
  }

  /** As fine as the screen, and no finer than a good one; where the processor draws, as fine as one pixel. */
  private get fineRatio(): number {
    return this.isSlow ? 1 : Math.min(2, window.devicePixelRatio);
  }

  private measure(): void {
    const { clientWidth, clientHeight } = this.element;
    if (clientWidth === 0 || clientHeight === 0) return;
    this.renderer.setSize(clientWidth, clientHeight);
    this.camera.aspect = clientWidth / clientHeight;
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  protected draw(): void {
    cancelAnimationFrame(this.waiting);
    this.waiting = requestAnimationFrame(() => this.renderer.render(this.scene, this.camera));
  }

  /** Calls with a ray through where it was clicked; a drag is no click. */
  protected onPick(pick: (ray: Raycaster) => void): void {
    const { domElement } = this.renderer;
    let pressed = { x: 0, y: 0 };
    domElement.addEventListener('pointerdown', ({ clientX: x, clientY: y }) => {
      pressed = { x, y };
    });
    domElement.addEventListener('click', ({ clientX, clientY }) => {
      if (Math.hypot(clientX - pressed.x, clientY - pressed.y) > mostDragPx) return;
      const { left, top, width, height } = domElement.getBoundingClientRect();
      const ray = new Raycaster();
      ray.setFromCamera(new Vector2((2 * (clientX - left)) / width - 1, 1 - (2 * (clientY - top)) / height), this.camera);
      pick(ray);
    });
  }

  /** Looks at a place from another, both in mm. */
  protected look(at: Vector3, from: Vector3): void {
    this.controls.target.copy(at);
    this.camera.position.copy(from);
    this.controls.update();
    this.draw();
  }

  dispose(): void {
    cancelAnimationFrame(this.waiting);
    this.observer.disconnect();
    this.controls.dispose();
    this.renderer.dispose();
    this.renderer.domElement.remove();
  }
}
