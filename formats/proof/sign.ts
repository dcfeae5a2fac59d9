import { createHash, createPublicKey, type KeyObject, sign, verify } from "node:crypto";
import type { RunFile } from "../concluded";
import { linksOf, signedText } from "./links";

/** Who signs what leaves a lab. */
export interface Signer {
  readonly lab: string;
  /** Ed25519. */
  readonly privateKey: KeyObject;
}

/** The public half of a key, as SPKI in base64. */
export const publicPart = (privateKey: KeyObject): string =>
  createPublicKey(privateKey).export({ type: "spki", format: "der" }).toString("base64");

/** A key in so few characters that two people can compare it: the first 40 of its SHA-256 in groups of four. */
export const fingerprint = (key: string): string =>
  (
    createHash("sha256").update(Buffer.from(key, "base64")).digest("hex").slice(0, 40).match(/.{4}/g) ?? []
  ).join(" ");

/** Whether a signature is that of a key over a text; never where the key is none. */
export function isSignedBy(key: string, text: string, signature: string): boolean {
  try {
    const parsed = createPublicKey({ key: Buffer.from(key, "base64"), format: "der", type: "spki" });
    const bytes = Buffer.from(text, "utf8");
    return (
      parsed.asymmetricKeyType === "ed25519" && verify(null, bytes, parsed, Buffer.from(signature, "base64"))
    );
  } catch {
    return false;
  }
}

/** Whether a key has this fingerprint, however that was typed. */
export function hasFingerprint(key: string, expected: string): boolean {
  const plain = (text: string) => text.toLowerCase().replace(/\s+/g, "");
  return plain(fingerprint(key)) === plain(expected);
}

/** A record with its chain, the head of which is signed by the lab. What it said of itself before is replaced. */
export function signed(record: RunFile, { lab, privateKey }: Signer, at: Date): RunFile {
  const links = linksOf(record);
  const proof = {
    algorithm: "SHA-256, Ed25519" as const,
    links,
    readings: links.filter(({ is }) => is === "reading").length,
    head: links.at(-1)?.link ?? "",
    signedAt: at.toISOString(),
    lab,
  };
  const signature = sign(null, Buffer.from(signedText(record.id, proof), "utf8"), privateKey).toString(
    "base64",
  );
  return { ...record, proof: { ...proof, key: publicPart(privateKey), signature } };
}
