import { strFromU8, unzipSync } from 'fflate';
import { compose, transformPoint, IDENTITY, type RigidTransform, type Vec3 } from '../math/index.ts';
import { attempt, fail, ok, unwrap, type Result } from '../result/index.ts';
import { MESH_LIMITS, type MeshFile } from './mesh.ts';
import { Welder } from './welder.ts';

/** Units of the 3MF Core Specification, mm. */
const UNITS: ReadonlyMap<string, number> = new Map([
  ['micron', 0.001],
  ['millimeter', 1],
  ['centimeter', 10],
  ['inch', 25.4],
  ['foot', 304.8],
  ['meter', 1000],
]);

/** An object of a model: triangles of its own, or others where they stand in it. */
interface Thing {
  readonly places: number[];
  readonly triangles: number[];
  readonly parts: Part[];
}
interface Part {
  /** Path of its model file and its id. */
  readonly of: string;
  readonly at: RigidTransform;
}
interface ModelFile {
  readonly unit: number;
  readonly built: readonly Part[];
}

/**
 * A 3MF file (Core Specification 1.3, with objects in several model files as its Production Extension has them): what is
 * built, where it stands. Fails with mesh.unreadable, mesh.large or mesh.empty.
 */
export function read3mf(bytes: Uint8Array): Result<MeshFile> {
  let files: Record<string, Uint8Array>;
  let size = 0;
  try {
    files = unzipSync(bytes, {
      filter({ name, originalSize }) {
        const isWanted = /\.(model|rels)$/i.test(name);
        if (isWanted) size += originalSize;
        return isWanted && size <= MESH_LIMITS.unpacked;
      },
    });
  } catch (error) {
    return unreadable(`it is no zip: ${(error as Error).message}`);
  }
  if (size > MESH_LIMITS.unpacked) return fail('mesh.large', { most: MESH_LIMITS.triangles });
  const root = rootOf(files);
  if (root === undefined) return unreadable('it holds no model');
  const things = new Map<string, Thing>();
  let model: ModelFile | undefined;
  for (const [name, content] of Object.entries(files)) {
    if (!/\.model$/i.test(name)) continue;
    const read = attempt(() => readModel(strFromU8(content), `/${name}`, things));
    if (!read.ok) return read;
    if (name === root) model = read.value;
  }
  const welder = new Welder();
  const built = attempt(() => build(model!.built, things, welder));
  if (!built.ok) return built;
  return welder.triangles === 0 ? fail('mesh.empty') : ok({ mesh: welder.mesh(), unit: model!.unit });
}

const unreadable = (reason: string) => fail('mesh.unreadable', { format: '3MF', reason });

/** The model that the package names as its own; else the only one there is. */
function rootOf(files: Readonly<Record<string, Uint8Array>>): string | undefined {
  const relations = files['_rels/.rels'];
  for (const { name, attributes } of relations ? tags(strFromU8(relations)) : [])
    if (name === 'Relationship' && /\/3dmodel$/.test(attributes['Type'] ?? '')) {
      const target = (attributes['Target'] ?? '').replace(/^\//, '');
      if (files[target]) return target;
    }
  return Object.keys(files).find((name) => /\.model$/i.test(name));
}

/** Puts the objects of a model file down by path and id; tells its unit and what is built of it. */
function readModel(text: string, path: string, things: Map<string, Thing>): ModelFile {
  let unit = 1;
  let thing: Thing | undefined;
  const built: Part[] = [];
  const partOf = (attributes: Attributes): Part => ({
    of: `${attributes['path'] ?? path} ${attributes['objectid']}`,
    at: movementOf(attributes['transform']),
  });
  for (const { name, attributes, ends } of tags(text)) {
    if (name === 'object' && !ends) {
      thing = { places: [], triangles: [], parts: [] };
      things.set(`${path} ${attributes['id']}`, thing);
    } else if (ends) continue;
    else if (name === 'model') unit = UNITS.get(attributes['unit'] ?? 'millimeter') ?? 1;
    else if (name === 'item') built.push(partOf(attributes));
    else if (!thing) continue;
    else if (name === 'vertex') thing.places.push(...['x', 'y', 'z'].map((axis) => Number(attributes[axis])));
    else if (name === 'triangle')
      thing.triangles.push(...['v1', 'v2', 'v3'].map((corner) => Number(attributes[corner])));
    else if (name === 'component') thing.parts.push(partOf(attributes));
  }
  return { unit, built };
}

/** Twelve numbers: the images of the axes one after the other, then the shift. */
function movementOf(text: string | undefined): RigidTransform {
  if (text === undefined) return IDENTITY;
  const numbers = text.slice(0, MOST_TRANSFORM).trim().split(/\s+/).map(Number);
  if (numbers.length !== 12 || !numbers.every(Number.isFinite))
    return unwrap(unreadable('a transform is not twelve numbers'));
  return [0, 1, 2].map((row) => [0, 1, 2, 3].map((column) => numbers[3 * column + row]!)) as unknown as RigidTransform;
}

/** Signs of twelve numbers, with room. */
const MOST_TRANSFORM = 1000;

/** Takes all that is built into the mesh, parts of parts where they stand; throws where that can not be. */
function build(parts: readonly Part[], things: ReadonlyMap<string, Thing>, welder: Welder): void {
  let count = 0;
  const put = ({ of, at }: Part, depth: number): void => {
    const thing = things.get(of);
    if (++count > MESH_LIMITS.objects) return unwrap(unreadable(`it builds more than ${MESH_LIMITS.objects} objects`));
    if (!thing || depth > MESH_LIMITS.depth) return unwrap(unreadable('an object that it builds is not in it'));
    if (welder.triangles + thing.triangles.length / 3 > MESH_LIMITS.triangles)
      return unwrap(fail('mesh.large', { most: MESH_LIMITS.triangles }));
    // only corners that are used: an object may be built thousands of times
    const corners = new Map<number, number>();
    const cornerOf = (k: number): number => {
      const known = corners.get(k);
      if (known !== undefined) return known;
      if (!(k >= 0 && 3 * k + 2 < thing.places.length))
        return unwrap(unreadable('a triangle has a corner that is not there'));
      const place = transformPoint(at, thing.places.slice(3 * k, 3 * k + 3) as unknown as Vec3);
      if (!place.every(Number.isFinite)) return unwrap(unreadable('a corner is no place'));
      const made = welder.corner(...place);
      corners.set(k, made);
      return made;
    };
    const isMirrored = determinant(at) < 0;
    for (let t = 0; t < thing.triangles.length; t += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => cornerOf(thing.triangles[t + k]!)) as [number, number, number];
      if (isMirrored) welder.triangle(a, c, b);
      else welder.triangle(a, b, c);
    }
    for (const part of thing.parts) put({ of: part.of, at: compose(part.at, at) }, depth + 1);
  };
  for (const part of parts) put(part, 0);
}

const determinant = ([u, v, w]: RigidTransform): number =>
  u[0] * (v[1] * w[2] - v[2] * w[1]) - u[1] * (v[0] * w[2] - v[2] * w[0]) + u[2] * (v[0] * w[1] - v[1] * w[0]);

type Attributes = Readonly<Record<string, string>>;
interface Tag {
  readonly name: string;
  readonly attributes: Attributes;
  readonly ends: boolean;
}

/**
 * The tags of an XML text one after the other, without their prefixes, each sign looked at once. A tree of a million corners
 * would take gigabytes: all that is asked of these files is in their attributes.
 */
function* tags(text: string): Generator<Tag> {
  for (let at = text.indexOf('<'); at >= 0; at = text.indexOf('<', at)) {
    if (text.startsWith('<!--', at)) {
      const end = text.indexOf('-->', at + 4);
      if (end < 0) return;
      at = end + 3;
      continue;
    }
    const end = tagEnd(text, at + 1);
    if (end === undefined) return;
    if (text[end] === '>') {
      const tag = tagOf(text.slice(at + 1, end));
      if (tag) yield tag;
    }
    at = end === at ? at + 1 : end;
  }
}

/** Where a tag ends, or where the next one begins before it does; undefined at the end of the text. */
function tagEnd(text: string, from: number): number | undefined {
  for (let k = from; k < text.length; k++) {
    const sign = text[k];
    if (sign === '>' || sign === '<') return k;
    if (sign !== '"' && sign !== "'") continue;
    k = text.indexOf(sign, k + 1);
    if (k < 0) return undefined;
  }
  return undefined;
}

/** What stands between the brackets; undefined for declarations and instructions. */
function tagOf(inner: string): Tag | undefined {
  const ends = inner.startsWith('/');
  const [name] = /^[\w.:-]+/.exec(ends ? inner.slice(1) : inner) ?? [];
  if (name === undefined) return undefined;
  const attributes = Object.create(null) as Record<string, string>;
  // by its quotes: between them are values, before each its key
  const parts = inner.split(/(["'])/);
  for (let k = 0; k + 2 < parts.length;) {
    const [before, quote] = [parts[k]!, parts[k + 1]!];
    const close = parts.indexOf(quote, k + 2);
    if (close < 0) break;
    const [key] = /[\w.:-]+$/.exec(before.trimEnd().replace(/=$/, '').trimEnd().slice(-MOST_KEY)) ?? [];
    if (key !== undefined) attributes[bare(key)] = parts.slice(k + 2, close).join('');
    k = close + 1;
  }
  return { name: bare(name), attributes, ends };
}
/** Longer names of attributes are none that is asked for. */
const MOST_KEY = 100;
const bare = (name: string): string => name.slice(name.indexOf(':') + 1);
