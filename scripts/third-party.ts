/** What of a lock file (version 3) is read here. */
export interface Lock {
  readonly packages: Readonly<Record<string, Locked>>;
}
interface Locked {
  readonly version?: string;
  readonly license?: string;
  readonly link?: boolean;
  readonly resolved?: string;
  readonly dependencies?: Readonly<Record<string, string>>;
  readonly optionalDependencies?: Readonly<Record<string, string>>;
}

/** The rooms that are shipped; what tests and benches need is not. */
const SHIPPED = ['packages/core', 'packages/kernel', 'packages/engine', 'apps/server', 'apps/web'];

export interface ThirdParty {
  readonly name: string;
  readonly version: string;
  readonly license: string;
}

/** Every package that is shipped, by name and version, with the licence that it names. Throws where one names none. */
export function thirdParties({ packages }: Lock): ThirdParty[] {
  const found = new Map<string, ThirdParty>();
  const visited = new Set<string>();
  const visit = (at: string): void => {
    const { link, resolved, version = '', license, dependencies = {}, optionalDependencies = {} } = packages[at]!;
    if (link) return visit(resolved!);
    if (visited.has(at)) return;
    visited.add(at);
    const name = at.slice(at.lastIndexOf('node_modules/') + 'node_modules/'.length);
    if (at.includes('node_modules/')) {
      if (!license) throw new Error(`${name} ${version} names no licence`);
      found.set(`${name} ${version}`, { name, version, license });
    }
    for (const needed of Object.keys({ ...dependencies, ...optionalDependencies })) {
      const there = resolve(packages, at, needed);
      if (there !== undefined) visit(there);
    }
  };
  SHIPPED.forEach(visit);
  // by their signs: in what order a language puts them differs from machine to machine
  return [...found].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, one]) => one);
}

/** Where a package is found that another needs: beside it, or further out. Undefined where it is optional and not there. */
function resolve(packages: Lock['packages'], from: string, name: string): string | undefined {
  for (let at = from; ; at = at.includes('/') ? at.slice(0, at.lastIndexOf('/')) : '') {
    const path = `${at === '' ? '' : `${at}/`}node_modules/${name}`;
    if (packages[path]) return path;
    if (at === '') return undefined;
  }
}

/** The page that tells them: `THIRD-PARTY.md`. */
export function thirdPartyPage(lock: Lock): string {
  const rows = thirdParties(lock).map(({ name, version, license }) => `- ${name} ${version}: ${license}`);
  return `# What others made

Every package that is shipped with Helb, with the licence that it names; written by \`./helb docs\` from the lock file, a test
fails when it is out of date. Their texts stand in the packages themselves. Besides these:

- Open CASCADE Technology, in WebAssembly within \`replicad-opencascadejs\`: LGPL-2.1 with the exception of Open CASCADE. It is
  loaded as a file of its own and can be replaced by another build of it.
- Source Sans 3, as outlines of letters in sketches and on sheets: SIL Open Font License 1.1.
- On the machine, not shipped: Node.js, MariaDB.

${rows.join('\n')}
`;
}
