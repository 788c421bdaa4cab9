import { Canvas } from '@react-three/fiber';
import { EVEN, LARGEST_INCIDENCE, LARGEST_TILT } from '@steady-gleam/core/optics';
import { useMemo } from 'react';
import { DataTexture, FloatType, LinearFilter, RGBAFormat, Vector2 } from 'three';
import { ASPECT, EYE, LAMP_HEIGHT, SHAPES, type SampleScene } from './sampleShading';

const VERTEX = `
varying vec2 place;
void main() { place = position.xy * vec2(${ASPECT.toFixed(2)}, 1.0); gl_Position = vec4(position.xy, 0.0, 1.0); }`;

/** The sum of sampleShading.ts, a pixel at a time. */
const FRAGMENT = `
precision highp float;
varying vec2 place;
uniform sampler2D prediction, wanted;
uniform bool hasWanted;
uniform int shape;
uniform vec2 lamp;
uniform float exposure, grain, cell;
const float N = 1.5;
bool body(vec2 q, out vec3 p, out vec3 n) {
  if (shape == 0) {
    vec3 s = vec3(1.42, 0.88, 0.8);
    float rest = 1.0 - q.x * q.x / (s.x * s.x) - q.y * q.y / (s.y * s.y);
    if (rest <= 0.0) return false;
    p = vec3(q, s.z * sqrt(rest));
    n = normalize(p / (s * s));
    return true;
  }
  if (shape == 1) {
    float ex = max(0.0, abs(q.x) - 0.78);
    float rest = 0.49 - ex * ex - q.y * q.y;
    if (rest <= 0.0) return false;
    float z = sqrt(rest);
    p = vec3(q, z);
    n = normalize(vec3(sign(q.x) * ex, q.y, z));
    return true;
  }
  p = vec3(q, 0.0);
  n = vec3(0.0, 0.0, 1.0);
  return abs(q.x) <= 1.4 && abs(q.y) <= 0.86;
}
vec3 look(float incidence, float tilt) {
  vec2 at = vec2(sqrt(min(1.0, tilt / ${LARGEST_TILT.toFixed(1)})), min(1.0, incidence / ${LARGEST_INCIDENCE.toFixed(1)}));
  vec2 size = vec2(${EVEN.tilts.toFixed(1)}, ${EVEN.incidences.toFixed(1)});
  vec2 uv = (at * (size - 1.0) + 0.5) / size;
  return place.x < 0.0 && hasWanted ? texture2D(wanted, uv).rgb : texture2D(prediction, uv).rgb;
}
vec3 inside(vec3 d, vec3 n, float c) { return (d - n * c) / N + n * sqrt(1.0 - (1.0 - c * c) / (N * N)); }
float noiseAt(vec2 q) { return fract(sin(q.x * 127.1 + q.y * 311.7) * 43758.5453); }
void main() {
  vec3 p, n, a, b;
  if (!body(place, p, n)) discard;
  vec3 toLamp = normalize(vec3(lamp, ${LAMP_HEIGHT.toFixed(1)}) - p);
  vec3 toEye = normalize(vec3(0.0, 0.0, ${EYE.toFixed(1)}) - p);
  float ci = dot(n, toLamp);
  float lit = max(0.0, ci);
  float cv = max(0.02, dot(n, toEye));
  vec3 h = normalize(inside(toLamp, n, lit) + inside(toEye, n, cv));
  float tilt = degrees(acos(clamp(dot(h, n), -1.0, 1.0)));
  float incidence = degrees(acos(min(1.0, lit)));
  float gloss = ci > 0.0 ? 0.7 * pow(max(0.0, dot(normalize(toLamp + toEye), n)), 900.0) : 0.0;
  float noise = grain * exp(-tilt / 14.0) * (noiseAt(floor(place / cell)) * 2.0 - 1.0);
  vec3 light = (look(incidence, tilt) * lit * (1.0 + noise) + look(30.0, 18.0) * (0.1 + 0.1 * n.z)) * exposure + gloss;
  vec3 v = clamp(light, 0.0, 1.0);
  vec3 s = mix(1.055 * pow(v, vec3(1.0 / 2.4)) - 0.055, 12.92 * v, vec3(lessThanEqual(v, vec3(0.0031308))));
  gl_FragColor = vec4(s, 1.0);
}`;

function texture(table: Float32Array): DataTexture {
  const rgba = new Float32Array((table.length / 3) * 4);
  for (let i = 0; i < table.length / 3; i++) {
    rgba.set(table.subarray(i * 3, i * 3 + 3), i * 4);
    rgba[i * 4 + 3] = 1;
  }
  const made = new DataTexture(rgba, EVEN.tilts, EVEN.incidences, RGBAFormat, FloatType);
  made.minFilter = LinearFilter;
  made.magFilter = LinearFilter;
  made.needsUpdate = true;
  return made;
}

/** The sample through WebGL: redrawn only when something changed. */
export function GlSample({ scene, width }: { scene: SampleScene; width: number }) {
  const tables = useMemo(
    () => ({ prediction: texture(scene.prediction), wanted: texture(scene.target ?? scene.prediction) }),
    [scene.prediction, scene.target],
  );
  const uniforms = useMemo(
    () => ({
      prediction: { value: tables.prediction },
      wanted: { value: tables.wanted },
      hasWanted: { value: scene.target !== null },
      shape: { value: SHAPES.findIndex((s) => s.id === scene.shape) },
      lamp: { value: new Vector2(...scene.lamp) },
      exposure: { value: scene.exposure },
      grain: { value: scene.grain },
      cell: { value: ((2 * ASPECT) / width) * scene.grainPx },
    }),
    [tables, scene, width],
  );
  return (
    <Canvas
      frameloop="demand"
      flat
      linear
      gl={{ alpha: true, antialias: true }}
      style={{ width: '100%', height: '100%' }}
    >
      <mesh>
        <planeGeometry args={[2, 2]} />
        <shaderMaterial
          key={JSON.stringify([scene.shape, scene.lamp, scene.exposure, scene.grain])}
          vertexShader={VERTEX}
          fragmentShader={FRAGMENT}
          uniforms={uniforms}
          transparent
        />
      </mesh>
    </Canvas>
  );
}
