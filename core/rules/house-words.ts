import type { Words } from "./schema";

/** What a lab says in its own way: its spelling, by how it writes the volume used, and its unit of volume. */
export type HouseWords = Pick<Words, "titer" | "volume">;
