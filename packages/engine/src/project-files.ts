import { LRUCache } from 'lru-cache';
import {
  fail,
  meshFacts,
  meshSection,
  transformMesh,
  ok,
  readMesh,
  type FileRecord,
  type Frame,
  type Id,
  type Issue,
  type Kernel,
  type LaidFile,
  type MeshFacts,
  type MeshFile,
  type Result,
  type TriangleMesh,
  type Vec2,
} from '@helb/core';

/** The bytes of a file of a project, or why there are none: a reason in words, or none. */
export type FileSource = (file: FileRecord) => Promise<Uint8Array | { readonly reason: string }>;
/** A source that has no files. */
export const NO_FILES: FileSource = () => Promise.resolve({ reason: '' });

/** Triangles that a step lays under the model, where they lie. */
export interface LaidMesh {
  readonly step: Id;
  /** The same while they lie the same: a page keeps what it has shown under this key. */
  readonly key: string;
  /** Does the file name a unit? */
  readonly named: boolean;
  readonly facts: MeshFacts;
  /** Left out where the caller has it already. */
  readonly mesh?: TriangleMesh;
}

/** Meshes that are kept: those of some steps, so that only what has changed is read anew. */
const MOST_MESHES = 8;

/** The files of projects: those with bodies go to the kernel, those with triangles are read here. */
export class ProjectFiles {
  private readonly read = new LRUCache<string, Result<MeshFile>>({ max: MOST_MESHES });
  private readonly laid = new LRUCache<string, Required<Omit<LaidMesh, 'step'>>>({ max: MOST_MESHES });

  private readonly sections = new WeakMap<
    TriangleMesh,
    { readonly key: string; readonly lines: readonly (readonly Vec2[])[] }
  >();

  constructor(
    private readonly source: FileSource,
    private readonly kernel: Kernel,
  ) {}

  /** Gives the kernel the files that it lacks; the issue where one can not be had. */
  async fetch(files: readonly FileRecord[]): Promise<Issue | undefined> {
    for (const file of files) {
      if (this.kernel.hasFile(file.hash)) continue;
      const bytes = await this.bytesOf(file);
      if (!bytes.ok) return bytes.issue;
      this.kernel.keepFile(file.hash, bytes.value);
    }
    return undefined;
  }

  /** The triangles of a file where a step lays them; fails where it can not be had or read. */
  async lay(step: Id, { file, unit, at }: LaidFile): Promise<Result<Required<LaidMesh>>> {
    const key = JSON.stringify([file.hash, file.name, unit, at]);
    let laid = this.laid.get(key);
    if (!laid) {
      const read = await this.meshOf(file);
      if (!read.ok) return read;
      const { mesh: raw, unit: own } = read.value;
      const mesh = transformMesh(raw, unit ?? own ?? 1, at);
      laid = { key, named: own !== undefined, mesh, facts: meshFacts(mesh) };
      this.laid.set(key, laid);
    }
    return ok({ step, ...laid });
  }

  /** Where a plane crosses what is laid, in its x and y; kept while neither moves. */
  crossed({ mesh }: Pick<Required<LaidMesh>, 'mesh'>, plane: Frame): readonly (readonly Vec2[])[] {
    const key = JSON.stringify(plane);
    let known = this.sections.get(mesh);
    if (known?.key !== key) this.sections.set(mesh, (known = { key, lines: meshSection(mesh, plane) }));
    return known.lines;
  }

  private async meshOf(file: FileRecord): Promise<Result<MeshFile>> {
    // how it is called tells how it is read
    const key = `${file.hash} ${file.name}`;
    const known = this.read.get(key);
    if (known) return known;
    const bytes = await this.bytesOf(file);
    // what was not to be had may come with the next try
    if (!bytes.ok) return bytes;
    const read = readMesh(file.name, bytes.value);
    this.read.set(key, read);
    return read;
  }

  private async bytesOf(file: FileRecord): Promise<Result<Uint8Array>> {
    const bytes = await this.source(file);
    if (bytes instanceof Uint8Array) return ok(bytes);
    return fail('file.missing', { name: file.name, reason: bytes.reason });
  }
}
