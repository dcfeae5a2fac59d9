import { randomBytes, scrypt, timingSafeEqual } from "node:crypto";

/* Passphrases are kept so that nobody can read them: by scrypt (RFC 7914), which is slow and takes 32 MB for each guess. */

/** A passphrase as it is kept, with what it takes to check another one against it. */
export interface KeptPassphrase {
  readonly salt: string;
  readonly hash: string;
  readonly cost: number;
  readonly blockSize: number;
  readonly parallel: number;
}

const strength = { cost: 2 ** 15, blockSize: 8, parallel: 1 } as const;
const bytes = 32;

/** Beside the main thread, some tenths of a second. */
const derived = (text: string, salt: Buffer, by: Omit<KeptPassphrase, "salt" | "hash">): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    const { cost: N, blockSize: r, parallel: p } = by;
    // Twice what it takes: 128 · N · r bytes.
    scrypt(text.normalize("NFKC"), salt, bytes, { N, r, p, maxmem: 256 * N * r }, (error, key) =>
      error ? reject(error) : resolve(key),
    );
  });

export async function keepPassphrase(text: string): Promise<KeptPassphrase> {
  const salt = randomBytes(16);
  const hash = await derived(text, salt, strength);
  return { salt: salt.toString("base64"), hash: hash.toString("base64"), ...strength };
}

/** True where a text is the passphrase that is kept. Takes as long where none is kept. */
export async function isPassphrase(text: string, kept: KeptPassphrase | null): Promise<boolean> {
  if (!kept) {
    await derived(text, Buffer.alloc(16), strength);
    return false;
  }
  const hash = Buffer.from(kept.hash, "base64");
  const found = await derived(text, Buffer.from(kept.salt, "base64"), kept);
  return hash.length === found.length && timingSafeEqual(hash, found);
}
