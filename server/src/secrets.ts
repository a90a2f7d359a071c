/** Keys kept at rest: AES-256-GCM under a key made by scrypt from a secret of the environment. */
import { createCipheriv, createDecipheriv, randomBytes, scryptSync } from 'node:crypto';

/** Shorter secrets can be guessed. */
export const LEAST_SECRET = 16;
const SALT = 16;
const NONCE = 12;
const TAG = 16;

export interface Secrets {
  seal: (plain: string) => string;
  /** Throws when the secret is another than the one it was sealed with, or the text was changed. */
  open: (sealed: string) => string;
}

/** Null without a secret: then nothing can be kept. */
export function secretsFrom(secret: string | undefined): Secrets | null {
  if (!secret || secret.length < LEAST_SECRET) return null;
  const keys = new Map<string, Buffer>();
  const keyFor = (salt: Buffer) => {
    const name = salt.toString('hex');
    let key = keys.get(name);
    if (!key) keys.set(name, (key = scryptSync(secret, salt, 32)));
    return key;
  };
  return {
    seal: (plain) => {
      const [salt, nonce] = [randomBytes(SALT), randomBytes(NONCE)];
      const cipher = createCipheriv('aes-256-gcm', keyFor(salt), nonce);
      const body = Buffer.concat([cipher.update(plain, 'utf8'), cipher.final()]);
      return Buffer.concat([salt, nonce, cipher.getAuthTag(), body]).toString('base64');
    },
    open: (sealed) => {
      const bytes = Buffer.from(sealed, 'base64');
      const cut = (from: number, length: number) => bytes.subarray(from, from + length);
      const decipher = createDecipheriv('aes-256-gcm', keyFor(cut(0, SALT)), cut(SALT, NONCE));
      decipher.setAuthTag(cut(SALT + NONCE, TAG));
      return Buffer.concat([decipher.update(bytes.subarray(SALT + NONCE + TAG)), decipher.final()]).toString(
        'utf8',
      );
    },
  };
}
