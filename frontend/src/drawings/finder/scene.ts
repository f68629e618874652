/**
 * A simple model of the scene, drawn with three.js in the look's own inks: ground, horizon, what the photographer put on
 * the drawing, sun and shadows. One unit is a metre; x along the rail, y up, −z away from it.
 */
import {
  AmbientLight,
  BoxGeometry,
  BufferGeometry,
  CircleGeometry,
  Color,
  CylinderGeometry,
  DirectionalLight,
  EdgesGeometry,
  Float32BufferAttribute,
  Group,
  HalfFloatType,
  Line,
  LinearFilter,
  LineBasicMaterial,
  LineSegments,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  OrthographicCamera,
  PerspectiveCamera,
  PlaneGeometry,
  Scene,
  ShaderMaterial,
  SphereGeometry,
  WebGLRenderer,
  WebGLRenderTarget
} from 'three';
import type { Plan } from '../../api/client';
import type { Pose, Sun } from './pose';

type Mark = Plan['move']['marks'][number];
export interface Inks {
  sheet: string;
  ink: string;
  dark: boolean;
}

const M = 1 / 1000;
const FAR_M = 4000;
/** Marks that are directions are drawn in front of sun and moon. */
const DIRECTIONS = 0.8;
const rad = (degrees: number) => (degrees * Math.PI) / 180;

/** Whether there is no graphics card: then smooth edges cost four times the work, and are left out in motion. */
function drawnInSoftware(): boolean {
  const gl = document.createElement('canvas').getContext('webgl2');
  const asked = gl?.getExtension('WEBGL_debug_renderer_info');
  const name = asked ? String(gl?.getParameter(asked.UNMASKED_RENDERER_WEBGL)) : '';
  gl?.getExtension('WEBGL_lose_context')?.loseContext();
  return /swiftshader|llvmpipe|software/i.test(name);
}

/**
 * What the exposure makes of the light in the scene: so many stops more or less of it, shown between the darkest and the
 * lightest ink of the look. What is brighter than the lightest is burnt out, as on a sensor.
 */
const EXPOSE = {
  vertexShader: 'varying vec2 at; void main() { at = uv; gl_Position = vec4(position.xy, 0.0, 1.0); }',
  fragmentShader: `
    uniform sampler2D seen; uniform float gain; uniform vec3 darkest; uniform vec3 lightest; varying vec2 at;
    void main() {
      vec3 tone = texture2D(seen, at).rgb;
      float light = dot(tone, vec3(0.2126, 0.7152, 0.0722));
      gl_FragColor = vec4(mix(darkest, lightest, clamp(pow(light, 0.4545) * gain, 0.0, 1.0)), 1.0);
    }`
};

/** A tone of grey by how light it looks. */
const grey = (tone: number): Color => new Color(tone, tone, tone).convertSRGBToLinear();

export class Model {
  readonly canvas = document.createElement('canvas');
  /** How many times larger a picture at rest is drawn, for smooth edges. */
  readonly fine: number;
  #renderer: WebGLRenderer;
  #scene = new Scene();
  #camera = new PerspectiveCamera(40, 1.5, 0.02, FAR_M * 1.2);
  #things = new Group();
  #shadows = new Group();
  #sun: Mesh<CircleGeometry, MeshBasicMaterial>;
  #moon: Mesh<CircleGeometry, MeshBasicMaterial>;
  /** The marks that are directions, by their number. */
  #stars = new Map<number, Mesh>();
  #ways = new Group();
  #key = new DirectionalLight(0xffffff, 2);
  #fill = new AmbientLight(0xffffff, 1);
  #ground: Mesh<PlaneGeometry, MeshBasicMaterial>;
  #lines: LineBasicMaterial;
  #inks: Inks;
  #normal = 0;
  #groundAt = -1.5;
  /** The picture before it is exposed; nothing while no exposure is known. */
  #exposed = false;
  readonly #target: WebGLRenderTarget;
  readonly #develop: ShaderMaterial;
  readonly #sheetOfPaper: Scene;
  readonly #flat = new OrthographicCamera(-1, 1, 1, -1, 0, 1);

  constructor(inks: Inks) {
    this.#inks = inks;
    const software = drawnInSoftware();
    this.fine = software ? 2 : 1;
    this.#renderer = new WebGLRenderer({ canvas: this.canvas, antialias: !software, alpha: false });
    this.#renderer.setPixelRatio(1);
    // Half floats: what shines more than white is still there when less light is let in.
    this.#target = new WebGLRenderTarget(16, 16, {
      minFilter: LinearFilter,
      magFilter: LinearFilter,
      type: HalfFloatType,
      samples: software ? 0 : 4
    });
    const [darkest, lightest] = (inks.dark ? [inks.sheet, inks.ink] : [inks.ink, inks.sheet]).map((ink) =>
      new Color(ink).convertLinearToSRGB()
    );
    this.#develop = new ShaderMaterial({
      ...EXPOSE,
      uniforms: {
        seen: { value: this.#target.texture },
        gain: { value: 1 },
        darkest: { value: darkest },
        lightest: { value: lightest }
      },
      depthTest: false,
      depthWrite: false
    });
    this.#sheetOfPaper = new Scene().add(new Mesh(new PlaneGeometry(2, 2), this.#develop)) as Scene;
    this.#lines = new LineBasicMaterial({ color: inks.ink });
    this.#ground = new Mesh(new PlaneGeometry(FAR_M * 2, FAR_M * 2), new MeshBasicMaterial());
    this.#ground.rotation.x = -Math.PI / 2;
    this.#sun = new Mesh(new CircleGeometry(FAR_M * 0.012, 32), new MeshBasicMaterial({ color: inks.ink }));
    this.#moon = new Mesh(new CircleGeometry(FAR_M * 0.009, 32), new MeshBasicMaterial({ color: inks.ink }));
    this.#scene.add(this.#ground, this.#things, this.#shadows, this.#ways, this.#sun, this.#moon);
    this.#scene.add(this.#key, this.#fill);
  }

  /** Make the scene anew from the plan; in tones of grey where it is to be exposed. */
  build(plan: Plan, exposed: boolean): void {
    this.#exposed = exposed;
    this.#lines.color = exposed ? this.#mix(1) : new Color(this.#inks.ink);
    this.#moon.material.color = exposed ? new Color(4, 4, 4) : this.#mix(0.8);
    this.#sun.material.color = exposed ? new Color(60, 60, 60) : new Color(this.#inks.ink);
    for (const group of [this.#things, this.#shadows]) {
      group.traverse((one) => (one as Mesh).geometry?.dispose());
      group.clear();
    }
    this.#normal = plan.rig.normal_bearing_deg ?? 0;
    this.#groundAt = -(plan.rig.standing?.lens_height_mm ?? 1500) * M;
    this.#ground.position.y = this.#groundAt;
    this.#things.add(this.#grid(), this.#horizon());
    this.#stars.clear();
    plan.move.marks.forEach((mark, index) => {
      // Sun and moon are drawn for every shoot.
      if (mark.form === 'bearing' && (mark.body === 'sun' || mark.body === 'moon')) return;
      const made = this.#thing(mark);
      if (mark.form === 'bearing') this.#stars.set(index, made[0] as Mesh);
      this.#things.add(...made);
    });
  }

  /** The ways of sun and moon over the shoot, as bearings and heights: fine lines in the sky. */
  ways(each: readonly (readonly [number, number])[][]): void {
    for (const way of this.#ways.children) (way as Line).geometry.dispose();
    this.#ways.clear();
    for (const way of each) {
      if (way.length < 2) continue;
      const points = way.flatMap(([azimuth, altitude]) => this.#far(azimuth, altitude, 0.95));
      const geometry = new BufferGeometry().setAttribute('position', new Float32BufferAttribute(points, 3));
      this.#ways.add(new Line(geometry, new LineBasicMaterial({ color: this.#mix(0.45) })));
    }
  }

  /** A direction as a place very far away. */
  #far(azimuth: number, altitude: number, share = 1): [number, number, number] {
    const [turn, up] = [rad(azimuth - this.#normal), rad(altitude)];
    const far = FAR_M * share;
    return [far * Math.cos(up) * Math.sin(turn), far * Math.sin(up), -far * Math.cos(up) * Math.cos(turn)];
  }

  /** The moon where it stands; without a place on earth there is none. */
  moon(moon: { azimuth: number; altitude: number; up: boolean } | null): void {
    this.#moon.visible = !!moon?.up;
    if (moon) this.#moon.position.set(...this.#far(moon.azimuth, moon.altitude));
  }

  /** A mark that goes with the sky, where it stands now; nothing where that is not known. */
  star(index: number, at: { azimuth: number; altitude: number } | undefined): void {
    if (at) this.#stars.get(index)?.position.set(...this.#far(at.azimuth, at.altitude, DIRECTIONS));
  }

  #mix(share: number): Color {
    if (this.#exposed) return grey(0.72 - 0.62 * share);
    // Mixed as inks are seen, not as light adds up: otherwise every tone in between turns grey.
    const [a, b] = [new Color(this.#inks.sheet), new Color(this.#inks.ink)].map((one) =>
      one.convertLinearToSRGB()
    );
    return a!.lerp(b!, share).convertSRGBToLinear();
  }

  #grid(): LineSegments {
    const points: number[] = [];
    const y = this.#groundAt + 0.003;
    for (let n = -20; n <= 20; n++)
      points.push(n * 2, y, 10, n * 2, y, -80, -40, y, 10 - (n + 20) * 2.2, 40, y, 10 - (n + 20) * 2.2);
    const geometry = new BufferGeometry().setAttribute('position', new Float32BufferAttribute(points, 3));
    return new LineSegments(geometry, new LineBasicMaterial({ color: this.#mix(0.32) }));
  }

  /** The horizon: as high as the lens, however far the ground is drawn. */
  #horizon(): LineSegments {
    const points: number[] = [];
    const at = (n: number) => [Math.sin((n * Math.PI) / 90) * FAR_M, 0, Math.cos((n * Math.PI) / 90) * FAR_M];
    for (let n = 0; n < 180; n++) points.push(...at(n), ...at(n + 1));
    const geometry = new BufferGeometry().setAttribute('position', new Float32BufferAttribute(points, 3));
    return new LineSegments(geometry, new LineBasicMaterial({ color: this.#mix(0.6) }));
  }

  /** A mark as a body with its edges drawn, standing on the ground. */
  #thing(mark: Mark): (Mesh | LineSegments)[] {
    if (mark.form === 'bearing') return [this.#bearing(mark)];
    const [x, y, z] = [mark.x_mm * M, mark.z_mm * M, -mark.y_mm * M];
    const height = Math.max(0.004, y - this.#groundAt);
    const middle = this.#groundAt + height / 2;
    if (mark.form === 'point') {
      const dot = this.#body(new SphereGeometry(Math.max(0.004, Math.abs(z) * 0.006), 12, 8), 0.75);
      dot.position.set(x, y, z);
      return [dot];
    }
    if (mark.form === 'person') {
      const body = this.#body(new CylinderGeometry(0.13, 0.2, height * 0.84, 10), 0.62);
      body.position.set(x, this.#groundAt + height * 0.42, z);
      const head = this.#body(new SphereGeometry(height * 0.075, 12, 10), 0.62);
      head.position.set(x, this.#groundAt + height * 0.92, z);
      return [body, head];
    }
    const wide = Math.max(0.004, mark.width_mm * M);
    const deep = Math.max(0.004, mark.depth_mm * M);
    const shape =
      mark.form === 'post'
        ? new CylinderGeometry(wide / 2, wide / 2, height, 14)
        : new BoxGeometry(wide, height, deep);
    const body = this.#body(shape, mark.form === 'post' ? 0.7 : 0.34);
    body.position.set(x, middle, z - (mark.form === 'block' ? deep / 2 : 0));
    const edges = new LineSegments(new EdgesGeometry(shape, 30), this.#lines);
    edges.position.copy(body.position);
    return [body, edges];
  }

  #bearing(mark: Mark): Mesh {
    const dot = new Mesh(
      new SphereGeometry(FAR_M * DIRECTIONS * 0.006, 12, 8),
      new MeshBasicMaterial({ color: this.#mix(0.9) })
    );
    dot.position.set(...this.#far(mark.bearing_deg, mark.altitude_deg, DIRECTIONS));
    return dot;
  }

  #body(geometry: BufferGeometry, depth: number): Mesh {
    const mesh = new Mesh(
      geometry,
      new MeshLambertMaterial({ color: this.#mix(this.#inks.dark ? depth : depth * 0.8) })
    );
    mesh.userData.casts = true;
    return mesh;
  }

  /** Light level, sky and shadows for where the sun stands; without a place on earth it is an even day. */
  light(sun: Sun | null): void {
    const up = sun ? sun.altitude : 35;
    const day = sun ? sun.daylight : 1;
    if (this.#exposed) return this.#daylit(sun);
    const { dark } = this.#inks;
    // On the reversed sheets ink is light: there the sky is what comes nearest to it by day.
    this.#scene.background = this.#mix(dark ? 0.04 + 0.2 * day : 0.5 - 0.46 * day);
    this.#ground.material.color = this.#mix(dark ? 0.02 + 0.1 * day : 0.58 - 0.42 * day);
    this.#fill.intensity = 1.1 + 1.2 * day;
    // By night the moon, or a lamp, tells the sides of things apart.
    this.#shine(sun, sun && up < -1 ? 0.7 : 0.6 + 1.6 * day);
  }

  /** The scene as a right exposure has it, by day and by night: the exposure makes it lighter or darker. */
  #daylit(sun: Sun | null): void {
    const day = sun ? sun.daylight : 1;
    this.#scene.background = grey(0.66 + 0.16 * day);
    this.#ground.material.color = grey(0.58);
    this.#fill.intensity = 2.2;
    this.#shine(sun, sun && sun.altitude < -1 ? 0.5 : 1.6);
  }

  /** Where the light comes from, where the sun is seen, and which way the shadows fall. */
  #shine(sun: Sun | null, key: number): void {
    const up = sun ? sun.altitude : 35;
    this.#key.intensity = key;
    const [turn, high] = [rad((sun?.azimuth ?? 210) - this.#normal), rad(Math.max(up, 1))];
    const low = sun && up < -1 ? rad(35) : high;
    const toSun = [Math.cos(low) * Math.sin(turn), Math.sin(low), -Math.cos(low) * Math.cos(turn)] as const;
    this.#key.position.set(...toSun);
    this.#sun.visible = !!sun?.up;
    const real = rad(up);
    this.#sun.position.set(
      FAR_M * Math.cos(real) * Math.sin(turn),
      FAR_M * Math.sin(real),
      -FAR_M * Math.cos(real) * Math.cos(turn)
    );
    this.#cast(toSun, !!sun && up > 0.5);
  }

  /** Shadows: every body pressed flat onto the ground, along the sun's rays. */
  #cast(toSun: readonly [number, number, number], on: boolean): void {
    this.#shadows.visible = on;
    if (!on) return;
    const [sx, sy, sz] = toSun;
    const g = this.#groundAt + 0.006;
    const flat = new Matrix4().set(
      1,
      -sx / sy,
      0,
      (sx / sy) * g,
      0,
      0,
      0,
      g,
      0,
      -sz / sy,
      1,
      (sz / sy) * g,
      0,
      0,
      0,
      1
    );
    if (!this.#shadows.children.length)
      for (const one of this.#things.children)
        if (one.userData.casts) {
          const shade = new MeshBasicMaterial({
            color: this.#mix(this.#inks.dark ? 0 : 0.55),
            transparent: true,
            opacity: 0.5
          });
          const shadow = new Mesh((one as Mesh).geometry, shade);
          shadow.matrixAutoUpdate = false;
          shadow.userData.of = one;
          this.#shadows.add(shadow);
        }
    for (const shadow of this.#shadows.children) {
      const of = shadow.userData.of as Mesh;
      of.updateMatrix();
      shadow.matrix.multiplyMatrices(flat, of.matrix);
    }
  }

  size(width: number, height: number): void {
    this.#renderer.setSize(width, height, false);
    this.#target.setSize(Math.max(1, width), Math.max(1, height));
  }

  /** Draw what the camera sees; `kept` is the kept part of the sensor in millimetres. */
  draw(pose: Pose, kept: readonly [number, number]): void {
    const camera = this.#camera;
    camera.aspect = kept[0] / kept[1];
    camera.fov = (2 * Math.atan(kept[1] / (2 * pose.focal)) * 180) / Math.PI;
    camera.position.set(pose.x * M, pose.z * M, 0);
    camera.rotation.set(rad(pose.tilt), -rad(pose.pan), -rad(pose.roll), 'YXZ');
    this.#sun.quaternion.copy(camera.quaternion);
    this.#moon.quaternion.copy(camera.quaternion);
    camera.updateProjectionMatrix();
    if (!this.#exposed) return this.#renderer.render(this.#scene, camera);
    this.#renderer.setRenderTarget(this.#target);
    this.#renderer.render(this.#scene, camera);
    this.#renderer.setRenderTarget(null);
    this.#renderer.render(this.#sheetOfPaper, this.#flat);
  }

  /** Let in so many stops more light than is right; less where it is negative. */
  expose(stops: number): void {
    // Tones are as the eye counts them: a stop is less than twice as light.
    this.#develop.uniforms.gain!.value = 2 ** (stops / 2.2);
  }

  dispose(): void {
    this.#target.dispose();
    this.#renderer.dispose();
    this.#renderer.forceContextLoss();
  }
}
