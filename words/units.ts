import type { HouseWords } from "~/core/rules";

/**
 * A sentence of the program, or a unit, in the units of a lab: cm³ for mL, and with it dm³ for L where something is in a liter of it.
 * Numbers stay as they are, since 1 mL is 1 cm³. What people typed does not go through it.
 */
export function inUnitsOf(text: string, volume: HouseWords["volume"]): string {
  if (volume === "mL") return text;
  return (
    text
      .replace(/(?<![A-Za-zµ])mL\b/g, "cm³")
      .replace(/\/L\b/g, "/dm³")
      // A liter above the line, or with a power: L/(mol·cm), L·mol⁻¹, mol·L⁻¹, and below one with others, mol/(L·s).
      .replace(/(?<![A-Za-zµ])L(?=[/·])/g, "dm³")
      .replace(/(?<=[·(/])L(?![A-Za-z])/g, "dm³")
  );
}
