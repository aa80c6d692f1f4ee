'use client';

import {
  AmbientLight,
  BufferAttribute,
  BufferGeometry,
  CylinderGeometry,
  DirectionalLight,
  DoubleSide,
  EdgesGeometry,
  Group,
  LineBasicMaterial,
  LineLoop,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  PerspectiveCamera,
  Plane,
  Quaternion,
  Scene as ThreeScene,
  ShapeUtils,
  Vector2,
  Vector3,
  WebGLRenderer,
} from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import type { TankSolid } from '@/core/answers';

/** Where on the picture a dimension is written. */
export type Where = {
  readonly axis: 'x' | 'y' | 'z';
  readonly x: number;
  readonly y: number;
  readonly length_m: number;
};

export type Scene = {
  readonly show: (solid: TankSolid) => void;
  /** Takes away what lies to starboard of a share of the width: 1 shows all of it. */
  readonly cutAt: (share: number) => void;
  readonly turn: (sideways: number, upward: number) => void;
  readonly close: () => void;
};

const FIELD_OF_VIEW_DEG = 35;
const STEP_RAD = 0.12;
/** Edges between faces that meet flatter than this are facets of a curve and not drawn [deg]. */
const CREASE_DEG = 20;

/** Liquid lies against the wall: its faces step back so that the two do not flicker. */
const BEHIND_THE_WALL = { polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 2 };

const color = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--chakra-colors-${name}`).trim() || '#888888';

/** A tank that grows by a millimetre makes its box grow by a pixel. */
const STRETCH_PX = 6;

/** Opens the picture in an element, or says why there is none. Drawn only when something has changed. */
export function openScene(holder: HTMLElement, onLabels: (labels: readonly Where[]) => void): Scene | string {
  let renderer: WebGLRenderer;
  try {
    renderer = new WebGLRenderer({ antialias: true, alpha: true });
  } catch {
    return 'This browser shows no 3D pictures.';
  }
  renderer.localClippingEnabled = true;
  renderer.setPixelRatio(Math.min(2, window.devicePixelRatio));
  Object.assign(renderer.domElement.style, {
    position: 'absolute',
    inset: '0',
    width: '100%',
    height: '100%',
    touchAction: 'none',
  });
  holder.prepend(renderer.domElement);
  const scene = new ThreeScene();
  const camera = new PerspectiveCamera(FIELD_OF_VIEW_DEG, 1, 0.001, 200);
  camera.up.set(0, 0, 1);
  const sun = new DirectionalLight('#ffffff', 1.6);
  sun.position.set(-2, -3, 5);
  scene.add(new AmbientLight('#ffffff', 1.6), sun);
  const controls = new OrbitControls(camera, renderer.domElement);
  const clip = new Plane(new Vector3(0, 1, 0), 0);
  // Kept as long as the picture: a new one would have its program compiled again.
  const paints = paintsFor(clip);
  let body = new Group();
  let shown: TankSolid | undefined;
  let waiting = false;

  const draw = (): void => {
    if (waiting) return;
    waiting = true;
    requestAnimationFrame(() => {
      waiting = false;
      const { clientWidth: width, clientHeight: height } = holder;
      if (width === 0 || height === 0) return;
      const { width: had, height: tall } = renderer.getSize(new Vector2());
      // Setting a size makes the canvas anew; one that is some pixels off is stretched by as much.
      if (Math.abs(had - width) > STRETCH_PX || Math.abs(tall - height) > STRETCH_PX)
        renderer.setSize(width, height, false);
      camera.aspect = width / height;
      camera.updateProjectionMatrix();
      renderer.render(scene, camera);
      if (shown) onLabels(labelsOf(shown, camera, width, height));
    });
  };
  controls.addEventListener('change', draw);
  const watcher = new ResizeObserver(draw);
  watcher.observe(holder);

  const show = (solid: TankSolid): void => {
    scene.remove(body);
    dispose(body);
    body = bodyOf(solid, paints);
    Object.values(paints).forEach(({ material, ink }) => material.color.set(color(ink)));
    scene.add(body);
    if (!shown) lookAt(solid, camera, controls);
    shown = solid;
    draw();
  };
  return {
    show,
    cutAt: (share) => {
      if (!shown) return;
      const { min, max } = shown.bounds;
      clip.constant = -(min[1] + (1 - share) * (max[1] - min[1])) + (share === 1 ? 1 : 0);
      draw();
    },
    turn: (sideways, upward) => {
      const from = camera.position.clone().sub(controls.target);
      from.applyAxisAngle(new Vector3(0, 0, 1), -sideways * STEP_RAD);
      from.applyAxisAngle(new Vector3(0, 0, 1).cross(from).normalize(), -upward * STEP_RAD);
      camera.position.copy(controls.target).add(from);
      controls.update();
      draw();
    },
    close: () => {
      watcher.disconnect();
      controls.dispose();
      dispose(body);
      Object.values(paints).forEach(({ material }) => material.dispose());
      renderer.dispose();
      renderer.domElement.remove();
    },
  };
}

/** From forward, starboard and above, far enough off to see the whole. */
function lookAt({ bounds: { min, max } }: TankSolid, camera: PerspectiveCamera, controls: OrbitControls): void {
  const middle = new Vector3(...min).add(new Vector3(...max)).multiplyScalar(0.5);
  const reach = new Vector3(...max).distanceTo(new Vector3(...min));
  controls.target.copy(middle);
  camera.position.copy(middle).add(new Vector3(0.55, -1, 0.55).normalize().multiplyScalar(reach * 1.75));
  controls.update();
}

const geometryOf = ({ positions, triangles }: TankSolid['shell']): BufferGeometry => {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
  geometry.setIndex(new BufferAttribute(triangles, 1));
  const flat = geometry.toNonIndexed();
  flat.computeVertexNormals();
  return flat;
};

type Paint = 'shell' | 'shellEdge' | 'liquid' | 'liquidEdge' | 'plate' | 'plateEdge' | 'pickup' | 'port';
type Paints = Readonly<
  Record<
    Paint,
    { readonly material: LineBasicMaterial | MeshBasicMaterial | MeshLambertMaterial; readonly ink: string }
  >
>;

/** Colours are set when a body is shown, since they follow the theme. */
function paintsFor(clip: Plane): Paints {
  const cut = { clippingPlanes: [clip] };
  const seeThrough = { transparent: true, side: DoubleSide, ...cut };
  return {
    shell: { ink: 'metal', material: new MeshLambertMaterial({ opacity: 0.16, depthWrite: false, ...seeThrough }) },
    shellEdge: { ink: 'metal', material: new LineBasicMaterial(cut) },
    liquid: { ink: 'fuel', material: new MeshLambertMaterial({ opacity: 0.72, ...seeThrough, ...BEHIND_THE_WALL }) },
    liquidEdge: { ink: 'fuel-edge', material: new LineBasicMaterial(cut) },
    plate: { ink: 'metal', material: new MeshBasicMaterial({ opacity: 0.35, depthWrite: false, ...seeThrough }) },
    plateEdge: { ink: 'metal', material: new LineBasicMaterial(cut) },
    pickup: { ink: 'ink', material: new MeshLambertMaterial() },
    port: { ink: 'metal', material: new MeshLambertMaterial() },
  };
}

function bodyOf(solid: TankSolid, paints: Paints): Group {
  const body = new Group();
  const mesh = (geometry: BufferGeometry, paint: Paint): Mesh => new Mesh(geometry, paints[paint].material);
  const edges = (geometry: BufferGeometry, paint: Paint): LineSegments =>
    new LineSegments(new EdgesGeometry(geometry, CREASE_DEG), paints[paint].material);
  const shell = geometryOf(solid.shell);
  body.add(mesh(shell, 'shell'), edges(shell, 'shellEdge'));
  if (solid.liquid) {
    const liquid = geometryOf(solid.liquid);
    body.add(mesh(liquid, 'liquid'), edges(liquid, 'liquidEdge'));
  }
  for (const plate of solid.plates) {
    const geometry = plateGeometry(plate);
    body.add(mesh(geometry, 'plate'), new LineLoop(geometry, paints.plateEdge.material));
  }
  const size = new Vector3(...solid.bounds.max).distanceTo(new Vector3(...solid.bounds.min));
  for (const { from, to } of solid.pickups)
    body.add(mesh(rod(new Vector3(...from), new Vector3(...to), size * 0.007), 'pickup'));
  for (const { at } of solid.ports)
    body.add(
      mesh(rod(new Vector3(...at), new Vector3(...at).add(new Vector3(0, 0, size * 0.02)), size * 0.014), 'port'),
    );
  return body;
}

/** A sheet, filled as seen along its own axis. */
function plateGeometry({ axis, outline }: TankSolid['plates'][number]): BufferGeometry {
  const points = outline.map((point) => new Vector3(...point));
  const [u, v] = ([0, 1, 2] as const).filter((k) => k !== axis) as [0, 1];
  const flat = points.map((point) => new Vector2(point.getComponent(u), point.getComponent(v)));
  const geometry = new BufferGeometry().setFromPoints(points);
  geometry.setIndex(ShapeUtils.triangulateShape(flat, []).flat());
  return geometry;
}

function rod(from: Vector3, to: Vector3, radius: number): BufferGeometry {
  const along = to.clone().sub(from);
  const geometry = new CylinderGeometry(radius, radius, Math.max(along.length(), radius), 12);
  geometry.applyQuaternion(
    new Quaternion().setFromUnitVectors(
      new Vector3(0, 1, 0),
      along.lengthSq() > 0 ? along.clone().normalize() : new Vector3(0, 0, 1),
    ),
  );
  const middle = from.clone().add(to).multiplyScalar(0.5);
  geometry.translate(middle.x, middle.y, middle.z);
  return geometry;
}

function dispose(group: Group): void {
  group.traverse((object) => (object as Partial<Mesh>).geometry?.dispose());
}

/** Length, width and height at the middles of the near lower and upright edges. */
function labelsOf(
  { bounds: { min, max } }: TankSolid,
  camera: PerspectiveCamera,
  width: number,
  height: number,
): Where[] {
  const middle = [0, 1, 2].map((k) => (min[k]! + max[k]!) / 2);
  const off = 0.04 * Math.max(...[0, 1, 2].map((k) => max[k]! - min[k]!));
  const places: readonly (readonly ['x' | 'y' | 'z', readonly [number, number, number], number])[] = [
    ['x', [middle[0]!, min[1] - off, min[2] - off], max[0] - min[0]],
    ['y', [max[0] + off, middle[1]!, min[2] - off], max[1] - min[1]],
    ['z', [min[0] - off, min[1] - off, middle[2]!], max[2] - min[2]],
  ];
  return places.map(([axis, at, length_m]) => {
    const seen = new Vector3(...at).project(camera);
    return { axis, x: ((seen.x + 1) / 2) * width, y: ((1 - seen.y) / 2) * height, length_m };
  });
}
