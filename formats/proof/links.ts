import canonicalize from "canonicalize";
import { createHash } from "node:crypto";
import type { RunFile } from "../concluded";
import type { Link, Proof } from "./proof";

/** What a link is of, before it is hashed. */
export interface Linked {
  readonly is: Link["is"];
  readonly id: string;
  readonly content: unknown;
}

export const sha256 = (text: string): string => createHash("sha256").update(text, "utf8").digest("hex");

/** The one text that stands for a value: RFC 8785. Properties without a value are none. */
export const canonical = (value: unknown): string => canonicalize(value) ?? "null";

/**
 * A record taken apart in the order in which it is chained: its own properties, then each stage with its readings and each trial of it with its
 * own. Nothing is in two of them, and nothing is in none, so that whatever is altered lies in one link.
 */
export function linkedParts({ proof: _, stages, ...own }: RunFile): Linked[] {
  const parts = Object.entries(own).map(([id, content]): Linked => ({ is: "part", id, content }));
  const reading =
    (place: string) =>
    (content: { readonly id: string }): Linked => ({
      ...{ is: "reading", id: content.id },
      content: { place, ...content },
    });
  return [
    ...parts.sort((a, b) => (a.id < b.id ? -1 : 1)),
    ...stages.flatMap(({ observations, trials, traces, ...stage }): Linked[] => [
      { is: "stage", id: stage.key, content: stage },
      ...observations.map(reading(stage.key)),
      ...(traces ?? []).map((content): Linked => ({
        is: "trace",
        id: content.id,
        content: { place: stage.key, ...content },
      })),
      ...trials.flatMap(({ observations: ofTrial, ...trial }): Linked[] => [
        { is: "trial", id: trial.id, content: { place: stage.key, ...trial } },
        ...ofTrial.map(reading(trial.id)),
      ]),
    ]),
  ];
}

/** The link after another one: the first follows the name of the format. */
export const nextLink = (before: string | undefined, own: string): string =>
  sha256(`${before ?? "steady-bead/run"}:${own}`);

export const ownDigest = ({ is, id, content }: Linked): string => sha256(canonical({ is, id, content }));

/** The chain of a record. */
export function linksOf(record: RunFile): Link[] {
  const links: Link[] = [];
  for (const part of linkedParts(record)) {
    const own = ownDigest(part);
    links.push({ is: part.is, id: part.id, own, link: nextLink(links.at(-1)?.link, own) });
  }
  return links;
}

/** The text that a lab signs: of the head, of how many readings and links there are, and of who says so when. */
export const signedText = (
  id: string,
  { head, links, readings, lab, signedAt }: Omit<Proof, "signature" | "key">,
): string => canonical({ id, head, links: links.length, readings, lab, signedAt });
