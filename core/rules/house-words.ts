import type { Words } from "./schema";

/** What a text depends on. */
export type HouseWords = Pick<Words, "titer" | "volume">;

/** True where a house says things as this program does. */
export const plainWords = ({ titer, volume }: HouseWords): boolean => titer === "titer" && volume === "mL";

const titre = (word: string) => `${word.slice(0, -2)}re`;

/**
 * A text in the words and units of the house: titre for titer; cm³ for mL, and with it dm³ for L where something is in a
 * liter of it. Numbers stay as they are, since 1 mL is 1 cm³.
 */
export function inHouseWords(text: string, { titer, volume }: HouseWords): string {
  let said = text;
  if (titer === "titre") {
    said = said.replace(/\b[Tt]iter(?=s?\b)/g, titre);
  }
  if (volume === "cm³") {
    said = said
      .replace(/(?<![A-Za-zµ])mL\b/g, "cm³")
      .replace(/\/L\b/g, "/dm³")
      // A liter above the line, or with a power: L/(mol·cm), L·mol⁻¹, mol·L⁻¹, and below one with others, mol/(L·s).
      .replace(/(?<![A-Za-zµ])L(?=[/·])/g, "dm³")
      .replace(/(?<=[·(/])L(?![A-Za-z])/g, "dm³");
  }
  return said;
}
