import { Bug } from "../../core/result";
import type { RunFile } from "../../formats/concluded";
import { fingerprint, publicPart, type Signer, signed } from "../../formats/proof/sign";
import { labOf } from "../commands/lab";
import type { Database } from "../database/types";
import { dataFolder } from "./current";
import { signingKey } from "./signing-key";

/** The lab that is open, as it signs. */
export async function signingLab(db: Database): Promise<Signer> {
  const lab = await labOf(db);
  if (!lab) throw new Bug("No lab lives in the database");
  return { lab: lab.id, privateKey: signingKey(dataFolder()) };
}

/** Signs records in the name of the lab that is open. */
export async function signer(db: Database, at: Date): Promise<(file: RunFile) => RunFile> {
  const lab = await signingLab(db);
  return (file) => signed(file, lab, at);
}

/** The fingerprint of the lab's key, by which others know that a file is from here; null where its folder takes no key. */
export function labFingerprint(): string | null {
  try {
    return fingerprint(publicPart(signingKey(dataFolder())));
  } catch (error) {
    console.warn("The lab has no key to sign with:", error);
    return null;
  }
}
