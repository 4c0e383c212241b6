import { z } from 'zod';

const configSchema = z.object({
  HELB_PORT: z.coerce.number().int().min(0).max(65535).default(7340),
  HELB_HOST: z.string().default('127.0.0.1'),
  /** Names by which it is reached, with commas between; those of this machine where it listens to nobody else. */
  HELB_HOSTS: z.string().optional(),
  /** How many proxies of ours stand before it: only what they say of the address and of https is believed. */
  HELB_PROXIES: z.coerce.number().int().min(0).max(5).default(0),
  HELB_DB_HOST: z.string().default('127.0.0.1'),
  HELB_DB_PORT: z.coerce.number().int(),
  HELB_DB_NAME: z
    .string()
    .regex(/^[a-z0-9_]+$/)
    .default('helb'),
  HELB_DB_USER: z.string().default('helb'),
  HELB_DB_PASSWORD: z.string(),
  /** Whether the database is spoken to over TLS only, with a certificate that is known. */
  HELB_DB_TLS: z.enum(['yes', 'no']).default('no'),
  /** Folder of the built application; without it only the API is served. */
  HELB_WEB: z.string().optional(),
  /** Makes the demo account and its project if they are not there. */
  HELB_DEMO: z.enum(['yes', 'no']).default('no'),
  /** How often one address may try to sign in or up in a minute. */
  HELB_TRIES: z.coerce.number().int().min(1).default(20),
  /** A session that nobody has used for so long ends. */
  HELB_IDLE_HOURS: z.coerce.number().int().min(1).max(720).default(168),
  /** Whether everybody has to set one-time codes before anything else. */
  HELB_CODES: z.enum(['wanted', 'needed']).default('wanted'),
  /** Closes what is kept secret in the database; without it there are no one-time codes. */
  HELB_SECRET: z.string().min(32).optional(),
  /** How often one account may change something in a minute. */
  HELB_WRITES: z.coerce.number().int().min(1).default(600),
  /** Whether anybody may make an account. */
  HELB_SIGN_UP: z.enum(['open', 'closed']).default('open'),
  /** How much one account may keep. */
  HELB_QUOTA_MB: z.coerce.number().int().min(1).default(1024),
  /** Folder of the logs; without one they go to the output. */
  HELB_LOG_FOLDER: z.string().optional(),
  HELB_LOG: z.enum(['silent', 'error', 'info', 'debug']).default('info'),
});

export type Config = z.infer<typeof configSchema>;

/** Reads the environment; throws one line that names what is missing or wrong. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const parsed = configSchema.safeParse(env);
  if (parsed.success) {
    if (parsed.data.HELB_HOSTS === undefined && !LOOPBACK.includes(parsed.data.HELB_HOST))
      throw new Error('HELB_HOSTS: say by which names it is reached, as it listens to other machines.');
    if (parsed.data.HELB_CODES === 'needed' && parsed.data.HELB_SECRET === undefined)
      throw new Error('HELB_SECRET: is needed where everybody needs codes.');
    return parsed.data;
  }
  throw new Error(parsed.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`).join('; '));
}

const LOOPBACK: readonly string[] = ['127.0.0.1', '::1', 'localhost'];

/** The host names that are answered. */
export const hostsOf = ({ HELB_HOSTS }: Config): readonly string[] =>
  HELB_HOSTS === undefined ? ['localhost', '127.0.0.1', '[::1]'] : HELB_HOSTS.split(',').map((host) => host.trim());
