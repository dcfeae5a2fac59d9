import { createHash, sign } from "node:crypto";
import { valid } from "../compiled/archive-manifest";
import { canonical } from "../proof/links";
import { isSignedBy, publicPart, type Signer } from "../proof/sign";
import { pathChecker } from "../validate";
import type { Manifest } from "./schema";
import type { Entries } from "./zip";

export const manifestName = "manifest.json";

export const sha256OfBytes = (bytes: Uint8Array): string => createHash("sha256").update(bytes).digest("hex");

const mostValues = 300_000;
export const manifestProblems = pathChecker(valid, mostValues);

/** The text that a lab signs: what is in the archive, and who says so when. */
const signedText = ({ format, formatVersion, lab, writtenAt, files }: Omit<Manifest, "key" | "signature">) =>
  canonical({ format, formatVersion, lab, writtenAt, files });

/** What an archive of these files holds, signed by the lab. */
export function manifestOf(entries: Entries, { lab, privateKey }: Signer, at: Date): Manifest {
  const files = [...entries].map(([path, bytes]) => ({
    ...{ path, sha256: sha256OfBytes(bytes), bytes: bytes.length },
  }));
  const plain = {
    ...{ format: "steady-bead/archive" as const, formatVersion: 1 as const },
    ...{ lab, writtenAt: at.toISOString(), files },
  };
  const signature = sign(null, Buffer.from(signedText(plain), "utf8"), privateKey).toString("base64");
  return { ...plain, key: publicPart(privateKey), signature };
}

/** Whether the signature of a manifest is that of the key in it. */
export const manifestHolds = (manifest: Manifest): boolean =>
  isSignedBy(manifest.key, signedText(manifest), manifest.signature);
