import { msg, type Phrase } from "~/core/text";
import type { RunFile } from "../concluded";
import { type Linked, linkedParts, nextLink, ownDigest, signedText } from "./links";
import type { Link, Proof } from "./proof";
import { fingerprint, hasFingerprint, isSignedBy } from "./sign";

/** One thing in which a file is not as it was written. */
export interface Finding {
  readonly code:
    "unsigned" | "altered" | "removed" | "put-in" | "moved" | "chain" | "signature" | "other-key";
  /** What it is of, where it is of one part. */
  readonly id?: string;
  readonly message: Phrase;
}

type Place = (part: Pick<Linked, "is" | "id">) => Phrase;

/** A part of a record in words; of one that is not there any more, its name in the chain. */
function placesIn(file: RunFile): Place {
  const places = new Map<string, Phrase>();
  for (const stage of file.stages) {
    const title = file.method.stages.find(({ key }) => key === stage.key)?.title ?? stage.key;
    places.set(`stage ${stage.key}`, msg`stage “${title}”`);
    const reading = (
      where: Phrase,
      o: { id: string; symbol: string; text: string; unit: string; at: string },
    ) => places.set(`reading ${o.id}`, msg`reading ${o.text} ${o.unit} (${o.symbol}, ${o.at}) of ${where}`);
    for (const o of stage.observations) reading(msg`stage “${title}”`, o);
    for (const t of stage.traces ?? []) places.set(`trace ${t.id}`, msg`“${t.name}” of stage “${title}”`);
    stage.trials.forEach((trial, i) => {
      const where = msg`flask ${i + 1} of stage “${title}”`;
      places.set(`trial ${trial.id}`, where);
      for (const o of trial.observations) reading(where, o);
    });
  }
  return ({ is, id }) => places.get(`${is} ${id}`) ?? msg`${is} ${id}`;
}

const nameOf = ({ is, id }: Pick<Linked, "is" | "id">) => `${is} ${id}`;

/** Each part beside what its link says of it. */
function comparedParts(parts: readonly Linked[], links: readonly Link[], place: Place): Finding[] {
  const linkOf = new Map(links.map((link) => [nameOf(link), link]));
  const partOf = new Map(parts.map((part) => [nameOf(part), part]));
  const finding = (code: Finding["code"], part: Pick<Linked, "is" | "id">, message: Phrase): Finding => ({
    ...{ code, id: part.id, message },
  });
  const removed = links
    .filter((link) => !partOf.has(nameOf(link)))
    .map((link) => finding("removed", link, msg`Removed: ${place(link)}`));
  const found = parts.flatMap((part) => {
    const link = linkOf.get(nameOf(part));
    if (!link) return [finding("put-in", part, msg`Put in afterwards: ${place(part)}`)];
    return link.own === ownDigest(part) ? [] : [finding("altered", part, msg`Altered: ${place(part)}`)];
  });
  if (removed.length + found.length > 0 || parts.length !== links.length) {
    return [...removed, ...found, ...twice(parts, place)];
  }
  const at = parts.findIndex((part, i) => nameOf(part) !== nameOf(links[i]!));
  return at < 0 ? [] : [finding("moved", parts[at]!, msg`Moved to another place: ${place(parts[at]!)}`)];
}

/** Parts that are there twice under one name. */
function twice(parts: readonly Linked[], place: Place): Finding[] {
  const seen = new Set<string>();
  return parts.flatMap((part) => {
    const name = nameOf(part);
    if (!seen.has(name)) {
      seen.add(name);
      return [];
    }
    return [{ code: "put-in", id: part.id, message: msg`There twice: ${place(part)}` } as const];
  });
}

/** Whether each link follows from the one before it, up to the head, and whether there are as many as it says. */
function brokenChain({ links, head, readings }: Proof): Finding[] {
  const at = links.findIndex(({ own, link }, i) => link !== nextLink(links[i - 1]?.link, own));
  if (at >= 0)
    return [{ code: "chain", message: msg`The chain is broken at link ${at + 1} of ${links.length}` }];
  if (links.at(-1)?.link !== head)
    return [{ code: "chain", message: msg`The chain does not end at its head` }];
  return links.filter(({ is }) => is === "reading").length === readings
    ? []
    : [{ code: "chain", message: msg`The chain does not hold as many readings as it says` }];
}

/**
 * Everything in which a record is not as it was signed: nothing where it is. `expected` is the fingerprint of the lab's key, as somebody
 * has it from the lab itself; without it the signature tells only that whoever has the key in the file wrote it.
 */
export function findings(file: RunFile, expected?: string): Finding[] {
  const { proof } = file;
  if (!proof)
    return [{ code: "unsigned", message: msg`It carries no chain and no signature: nothing can be told` }];
  const parts = linkedParts(file);
  const found = [...comparedParts(parts, proof.links, placesIn(file)), ...brokenChain(proof)];
  return [
    ...found,
    ...(isSignedBy(proof.key, signedText(file.id, proof), proof.signature)
      ? []
      : [{ code: "signature", message: msg`The signature does not belong to this chain` } as const]),
    ...(expected !== undefined && !hasFingerprint(proof.key, expected)
      ? [
          {
            code: "other-key",
            message: msg`It was signed with another key: ${fingerprint(proof.key)}`,
          } as const,
        ]
      : []),
  ];
}
