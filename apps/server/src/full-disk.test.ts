import { execFileSync } from 'node:child_process';
import { closeSync, mkdtempSync, openSync, rmdirSync, rmSync, statfsSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startLastingDatabase } from '@helb/scripts/private-database.ts';
import { TestServers } from '../test/test-server.ts';

const disk = mkdtempSync(join(tmpdir(), 'helb-disk-'));

/** A small disk of its own: only who may mount can try this. */
function isMounted(): boolean {
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=200m', 'none', disk], { stdio: 'ignore' });
    return true;
  } catch {
    rmdirSync(disk);
    return false;
  }
}

(isMounted() ? describe : describe.skip)('a disk that is full', () => {
  afterAll(() => {
    execFileSync('umount', [disk]);
    rmdirSync(disk);
  });

  function fill(): void {
    const filler = openSync(join(disk, 'filler'), 'w');
    const piece = Buffer.alloc(64 * 1024, 1);
    for (;;) {
      const { bavail, bsize } = statfsSync(disk);
      if (bavail * bsize < piece.length) break;
      writeSync(filler, piece);
    }
    closeSync(filler);
  }

  test('is told; nothing that was kept is lost, and work goes on when there is room', async () => {
    const told: string[] = [];
    const servers = await TestServers.begin(
      (folder) => startLastingDatabase(folder, (words) => told.push(words)),
      disk,
    );
    try {
      const client = await servers.person(await servers.start(await servers.schema()));
      const { id } = (await client.call('POST', '/projects', { demo: true })).body;
      const save = (base: number, size = 900_000) => {
        const name = (value: string) => [{ op: 'set', path: ['name'], value }];
        const change = { id: `c${base}`, kind: 'do', label: 'Rename' };
        const changes = [{ ...change, forward: name(`Name ${base}`), backward: name('o'.repeat(size)) }];
        return client.call('POST', `/projects/${id}/changes`, { base, changes });
      };
      expect((await save(0)).status).toBe(200);
      fill();
      let kept = 1;
      let last = await save(kept);
      while (last.status === 200) last = await save(++kept);
      // the page tries such a save again by itself
      expect(last.status).toBeGreaterThanOrEqual(500);
      expect(last.body.message).toMatch(/disk of the server is full|does not answer/);
      rmSync(join(disk, 'filler'));
      for (let tries = 0; (await client.call('GET', `/projects/${id}`)).status !== 200; tries++) {
        expect(tries).toBeLessThan(60);
        await new Promise((resolve) => setTimeout(resolve, 500));
      }
      const { revision, document } = (await client.call('GET', `/projects/${id}`)).body;
      expect([revision, document.name]).toEqual([kept, `Name ${kept - 1}`]);
      expect((await save(kept, 1000)).body).toEqual({ revision: kept + 1 });
      expect(told.length).toBeLessThanOrEqual(1);
    } finally {
      await servers.end();
    }
  }, 90_000);
});
