import { readFile } from 'node:fs/promises';

/** Numbers of a user of this machine. */
export async function uid(name: string): Promise<{ user: number; group: number }> {
  const line = (await readFile('/etc/passwd', 'utf8')).split('\n').find((entry) => entry.startsWith(`${name}:`));
  const [, , user, group] = line?.split(':') ?? [];
  if (user === undefined || group === undefined)
    throw new Error(`There is no user ${name}: is mariadb-server installed?`);
  return { user: Number(user), group: Number(group) };
}
