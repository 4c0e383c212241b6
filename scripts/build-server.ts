import { build } from 'esbuild';
import { join } from 'node:path';

export const ROOT = join(import.meta.dirname, '..');
export const SERVER_MAIN = join(ROOT, 'apps/server/dist/main.js');
/** Its command line. */
export const ADMINISTRATE = join(ROOT, 'apps/server/dist/administrate.js');

/** Bundles the server, its thread and its command line with our own packages; everything else stays in node_modules. */
export async function buildServer(): Promise<void> {
  await build({
    entryPoints: ['main.ts', 'administrate.ts', 'services/request-thread.ts'].map((file) =>
      join(ROOT, 'apps/server/src', file),
    ),
    // side by side: main looks for its thread there
    outdir: join(ROOT, 'apps/server/dist'),
    entryNames: '[name]',
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'warning',
    plugins: [
      {
        name: 'keep-packages-outside',
        setup: (bundle) =>
          bundle.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
            kind === 'entry-point' || path.startsWith('@helb/') ? undefined : { path, external: true },
          ),
      },
    ],
  });
}
