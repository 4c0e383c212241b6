import { createCipheriv, createDecipheriv, createHash, randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';

/** Seconds that a code is for, and how many before and after are taken: clocks differ. (RFC 6238) */
const PERIOD = 30;
const WINDOW = 1;
const CIPHER = 'aes-256-gcm';
const [NONCE, TAG] = [12, 16];

const totp = (secret: string, name: string): TOTP =>
  new TOTP({
    ...{ issuer: 'Helb', label: name, secret: Secret.fromBase32(secret) },
    ...{ algorithm: 'SHA1', digits: 6, period: PERIOD },
  });

export interface NewSecret {
  /** Base32, as it is typed by hand. */
  readonly secret: string;
  /** As applications for one-time codes read it. */
  readonly uri: string;
}

/** A secret for one-time codes, 160 bits. */
export function newSecret(name: string): NewSecret {
  const secret = new Secret({ size: 20 }).base32;
  return { secret, uri: totp(secret, name).toString() };
}

/**
 * The period that a code is for, counted from 1970; undefined if it is none of now.
 * @param after the last one that was used: a code is good for once
 * @param now ms since 1970
 */
export function periodOf(code: string, secret: string, after: number, now = Date.now()): number | undefined {
  const delta = totp(secret, '').validate({ token: code, window: WINDOW, timestamp: now });
  if (delta === null) return undefined;
  const period = Math.floor(now / 1000 / PERIOD) + delta;
  return period > after ? period : undefined;
}

/** Keeps secrets in the database so that a copy of it alone tells none. */
export class SecretBox {
  private readonly key: Buffer;

  /** @param secret of the server, which is not in the database */
  constructor(secret: string) {
    this.key = createHash('sha256').update(`second factors\n${secret}`).digest();
  }

  close(text: string): Buffer {
    const nonce = randomBytes(NONCE);
    const cipher = createCipheriv(CIPHER, this.key, nonce);
    return Buffer.concat([nonce, cipher.update(text, 'utf8'), cipher.final(), cipher.getAuthTag()]);
  }

  /** @throws Error if it was closed with another secret, or changed */
  open(box: Buffer): string {
    const decipher = createDecipheriv(CIPHER, this.key, box.subarray(0, NONCE));
    decipher.setAuthTag(box.subarray(-TAG));
    return Buffer.concat([decipher.update(box.subarray(NONCE, -TAG)), decipher.final()]).toString('utf8');
  }
}
