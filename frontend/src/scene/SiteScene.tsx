/** The site as it stands, to be walked round: drawn only, no figure is taken from it. */
import { Canvas, useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef } from 'react';
import {
  BufferGeometry,
  CanvasTexture,
  DoubleSide,
  Float32BufferAttribute,
  LinearFilter,
  PerspectiveCamera,
  Vector3,
} from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { type SitePoint3, toVector, trianglesOf } from './mesh';

export interface SceneFace {
  kind: 'roof' | 'ground' | 'wall' | 'obstruction' | 'existing' | 'house';
  name: string;
  owner_id: string;
  ring: SitePoint3[];
}

export interface SceneRound {
  kind: 'crown' | 'cone' | 'post';
  name: string;
  at: SitePoint3;
  base_m: number;
  top_m: number;
  radius_m: number;
  guessed: boolean;
}

export interface SceneLabel {
  id: string;
  text: string;
  at: SitePoint3;
  /** Downhill, so that a plane facing the wrong way is seen at once. */
  azimuthDeg: number;
  chosen: boolean;
}

/** Where the scene is looked at from: a bearing and an elevation, and a count that asks again. */
export interface Standpoint {
  bearingDeg: number;
  elevationDeg: number;
  asked: number;
}

interface SiteSceneProps {
  faces: SceneFace[];
  rounds: SceneRound[];
  labels: SceneLabel[];
  standpoint: Standpoint;
  /** The sun stands to the south in the north, to the north in the south. */
  southern: boolean;
}

const COLOUR: Record<SceneFace['kind'], string> = {
  ground: '#c3c9a2',
  roof: '#c9b79c',
  wall: '#e6e0d3',
  obstruction: '#4a5757',
  existing: '#5d6f7d',
  house: '#cfcabf',
};
/** What modules can stand on. */
const isSurface = (face: SceneFace) => face.kind === 'roof' || face.kind === 'ground';
const CHOSEN = '#d8a67e';
const ROUGH = 0.5;

export default function SiteScene(props: SiteSceneProps) {
  return (
    <Canvas
      frameloop="demand"
      dpr={1}
      camera={{ fov: 38, near: 0.5, far: 600 }}
      className="h-full w-full"
    >
      <color attach="background" args={['#f4f1ea']} />
      <hemisphereLight args={['#ffffff', '#b9b09c', 1.5]} />
      <directionalLight position={[14, 30, props.southern ? -24 : 24]} intensity={1.7} />
      <Solids {...props} />
      <View {...props} />
    </Canvas>
  );
}

function Solids({ faces, rounds, labels }: SiteSceneProps) {
  const chosen = new Set(labels.filter((l) => l.chosen).map((l) => l.id));
  const middle = useMemo(() => centreOf(faces), [faces]);
  return (
    <>
      {/* A ground area that falls lies below this level: it is painted over it all the same. */}
      <mesh rotation-x={-Math.PI / 2} position={[middle.x, -0.02, middle.z]} renderOrder={-1}>
        <circleGeometry args={[60, 64]} />
        <meshLambertMaterial color="#dfe3d2" depthWrite={false} />
      </mesh>
      <NorthArrow middle={middle} />
      {faces.map((face, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a face has no name of its own
        <FaceMesh key={i} face={face} chosen={isSurface(face) && chosen.has(face.owner_id)} />
      ))}
      {rounds.map((round, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a solid has no name of its own
        <RoundMesh key={i} round={round} />
      ))}
      {labels.map((label) => (
        <Label key={label.id} label={label} />
      ))}
    </>
  );
}

function centreOf(faces: SceneFace[]): Vector3 {
  const points = faces.filter(isSurface).flatMap((f) => f.ring.map(toVector));
  if (points.length === 0) return new Vector3();
  return points.reduce((sum, p) => sum.add(p), new Vector3()).divideScalar(points.length);
}

function FaceMesh({ face, chosen }: { face: SceneFace; chosen: boolean }) {
  const [solid, outline] = useMemo(() => {
    const filled = new BufferGeometry();
    filled.setAttribute('position', new Float32BufferAttribute(trianglesOf(face.ring), 3));
    filled.computeVertexNormals();
    return [filled, new BufferGeometry().setFromPoints(face.ring.map(toVector))];
  }, [face]);
  useEffect(
    () => () => {
      solid.dispose();
      outline.dispose();
    },
    [solid, outline],
  );
  return (
    <>
      <mesh geometry={solid}>
        <meshLambertMaterial
          color={chosen ? CHOSEN : COLOUR[face.kind]}
          side={DoubleSide}
          polygonOffset
          polygonOffsetFactor={1}
          polygonOffsetUnits={1}
        />
      </mesh>
      <lineLoop geometry={outline}>
        <lineBasicMaterial color="#3c4a4a" />
      </lineLoop>
    </>
  );
}

function RoundMesh({ round }: { round: SceneRound }) {
  const { kind, base_m, top_m, radius_m, at, guessed } = round;
  const tall = Math.max(top_m - base_m, 0.1);
  const middle = toVector({ ...at, up_m: (top_m + base_m) / 2 });
  return kind === 'crown' ? (
    <mesh position={middle} scale={[radius_m, tall / 2, radius_m]}>
      <sphereGeometry args={[1, 24, 16]} />
      <meshLambertMaterial color="#7d9a76" transparent opacity={guessed ? 0.45 : 0.9} />
    </mesh>
  ) : (
    <mesh position={middle}>
      <cylinderGeometry args={[kind === 'cone' ? 0.01 : radius_m, radius_m, tall, 16]} />
      <meshLambertMaterial
        color={kind === 'cone' ? '#7d9a76' : '#6b5b4a'}
        transparent
        opacity={guessed ? 0.45 : 1}
      />
    </mesh>
  );
}

/** A plane's name above it, and the way it looks as an arrow downhill. */
function Label({ label }: { label: SceneLabel }) {
  const texture = useMemo(() => wordsOn(label.text), [label.text]);
  useEffect(() => () => texture.texture.dispose(), [texture]);
  const at = toVector(label.at);
  const turn = (-label.azimuthDeg * Math.PI) / 180;
  return (
    <>
      <sprite position={[at.x, at.y + 1.1, at.z]} scale={[texture.aspect * 0.9, 0.9, 1]}>
        <spriteMaterial map={texture.texture} depthTest={false} transparent />
      </sprite>
      <mesh position={[at.x, at.y + 0.35, at.z]} rotation={[-Math.PI / 2, 0, turn, 'YXZ']}>
        <coneGeometry args={[0.35, 1.3, 3]} />
        <meshBasicMaterial color={label.chosen ? '#8f4a1b' : '#1d2b2c'} depthTest={false} />
      </mesh>
    </>
  );
}

function wordsOn(text: string) {
  const canvas = document.createElement('canvas');
  const context = canvas.getContext('2d');
  const font = '600 44px "Barlow Semi Condensed", sans-serif';
  if (context) context.font = font;
  canvas.width = Math.ceil((context?.measureText(text).width ?? 200) + 28);
  canvas.height = 64;
  if (context) {
    context.font = font;
    context.lineWidth = 10;
    context.lineJoin = 'round';
    context.strokeStyle = '#fdfcf9';
    context.fillStyle = '#1d2b2c';
    context.textBaseline = 'middle';
    context.strokeText(text, 14, 34);
    context.fillText(text, 14, 34);
  }
  const texture = new CanvasTexture(canvas);
  texture.minFilter = LinearFilter;
  return { texture, aspect: canvas.width / canvas.height };
}

function NorthArrow({ middle }: { middle: Vector3 }) {
  const words = useMemo(() => wordsOn('N'), []);
  useEffect(() => () => words.texture.dispose(), [words]);
  return (
    <group position={[middle.x - 15, 0.05, middle.z - 8]}>
      <mesh rotation={[-Math.PI / 2, 0, 0]}>
        <coneGeometry args={[0.6, 3, 3]} />
        <meshBasicMaterial color="#8f4a1b" />
      </mesh>
      <sprite position={[0, 0.9, -2.4]} scale={[words.aspect * 1.3, 1.3, 1]}>
        <spriteMaterial map={words.texture} depthTest={false} transparent />
      </sprite>
    </group>
  );
}

type ViewProps = Pick<SiteSceneProps, 'faces' | 'rounds' | 'standpoint'>;

function View({ faces, rounds, standpoint }: ViewProps) {
  const { camera, gl, invalidate } = useThree();
  const controls = useRef<OrbitControls | null>(null);
  useEffect(() => {
    const made = new OrbitControls(camera, gl.domElement);
    made.maxPolarAngle = Math.PI / 2 - 0.02;
    const onChange = () => invalidate();
    // Coarser while it is walked round, so that it follows the hand without a graphics card.
    const rough = () => gl.setPixelRatio(ROUGH);
    const fine = () => {
      gl.setPixelRatio(1);
      invalidate();
    };
    made.addEventListener('change', onChange);
    made.addEventListener('start', rough);
    made.addEventListener('end', fine);
    controls.current = made;
    return () => {
      made.removeEventListener('change', onChange);
      made.removeEventListener('start', rough);
      made.removeEventListener('end', fine);
      made.dispose();
    };
  }, [camera, gl, invalidate]);
  useEffect(() => {
    const middle = centreOf(faces);
    const reach = Math.max(
      9,
      ...faces.filter(isSurface).flatMap((f) => f.ring.map((p) => toVector(p).distanceTo(middle))),
    );
    const bearing = (standpoint.bearingDeg * Math.PI) / 180;
    const elevation = (standpoint.elevationDeg * Math.PI) / 180;
    // Trees nearby are wanted in the picture, but not at the price of the house.
    const beside = Math.max(0, ...rounds.map((r) => toVector(r.at).distanceTo(middle)));
    const away = Math.min(Math.max(reach, beside * 0.8), reach * 1.35) * 2.25;
    camera.position.set(
      middle.x + away * Math.cos(elevation) * Math.sin(bearing),
      middle.y + away * Math.sin(elevation),
      middle.z - away * Math.cos(elevation) * Math.cos(bearing),
    );
    if (camera instanceof PerspectiveCamera) camera.lookAt(middle);
    controls.current?.target.copy(middle);
    controls.current?.update();
    invalidate();
  }, [camera, faces, rounds, standpoint, invalidate]);
  return null;
}
