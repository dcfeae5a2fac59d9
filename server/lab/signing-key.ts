import { chmodSync, existsSync, readFileSync } from "node:fs";
import { createPrivateKey, generateKeyPairSync, type KeyObject } from "node:crypto";
import path from "node:path";
import { Bug } from "../../core/result";
import { writeDurably } from "../database/durable-file";

export const keyFile = (folder: string): string => path.join(folder, "signing-key.pem");

/**
 * The key with which a lab signs what it exports: Ed25519, made when it is first needed, in its data folder, readable by this user alone.
 * It is in no backup, since whoever has it can sign in the lab's name. Where it is lost, a new one is made; what was signed before can still
 * be checked by the public key that each file carries.
 */
export function signingKey(folder: string): KeyObject {
  const file = keyFile(folder);
  if (!existsSync(file)) {
    const { privateKey } = generateKeyPairSync("ed25519");
    writeDurably(file, privateKey.export({ type: "pkcs8", format: "pem" }), 0o600);
  }
  chmodSync(file, 0o600);
  const key = createPrivateKey(readFileSync(file, "utf8"));
  if (key.asymmetricKeyType !== "ed25519") throw new Bug(`${file} holds no Ed25519 key`);
  return key;
}
