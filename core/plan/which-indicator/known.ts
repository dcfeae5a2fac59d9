import type { AcidSystem, Couple, Metal, Mixture, PHRange } from "../../equilibria";
import type { Phrase } from "../../text";

/* What has to be known of substances and indicators to say which one shows an end; the catalog has the tables. */

/** An indicator with its color on the low and on the high side of its change: of pH, of -log10 of a free metal, of the potential. */
export interface Indicator {
  readonly key: string;
  readonly name: Phrase;
  readonly low: { readonly color: string; readonly looks: Phrase };
  readonly high: { readonly color: string; readonly looks: Phrase };
  /** True where it has no color on the low side: its end is the first trace of the other color, or the last. */
  readonly oneColor?: boolean;
  readonly source: string;
}

/** How far an indicator has changed when its end is taken, from -1 to 1: half way, or at the edge where its only color begins. */
export const seenAt = ({ oneColor = false }: Indicator): number => (oneColor ? -1 : 0);

/** An indicator of acids and bases. */
export type AcidIndicator = Indicator & PHRange;

/** An indicator that metals bind: its protons, and log10 of its constants with the metals, by their symbols, when all protons are gone. */
export interface MetalIndicator extends Indicator {
  /** pH between which its two colors can be told apart. */
  readonly usable: readonly [from: number, to: number];
  readonly acid: AcidSystem;
  readonly logK: Readonly<Record<string, number>>;
}

/** A dye that is oxidized at a potential, in acid of 1 mol/L, V; or the color of an oxidant itself, between two concentrations, mol/L. */
export type RedoxIndicator = Indicator &
  (
    | { readonly volts: number; readonly electrons: number }
    | { readonly colorOf: string; readonly from: number; readonly to: number }
  );

/** A metal that a ligand binds. */
export interface KnownMetal extends Metal {
  readonly symbol: string;
}

/** A substance that takes or gives electrons: moles of its couple in one mole of it. */
export interface KnownCouple extends Couple {
  readonly key: string;
  /** The form that is put into the solution. */
  readonly put: "oxidized" | "reduced";
  readonly moles: number;
  /** pH at which it is titrated with, where the method does not say. Common practice, no source. */
  readonly usualPH: number;
  /** Reduced form that is there beside it, mol/L: the iodide in which iodine is dissolved. */
  readonly beside: number;
}

export interface Known {
  /** A substance in solution, mol/L. */
  readonly dissolved: (formula: string, concentration: number) => Mixture | null;
  readonly metal: (formula: string) => KnownMetal | null;
  /** The ligand, if the formula is one. */
  readonly ligand: (formula: string) => AcidSystem | null;
  readonly couple: (formula: string) => KnownCouple | null;
  /** All that a titrant goes by, itself first: KMnO4 and MnO4-. */
  readonly namesOf: (titrant: string) => readonly string[];
  /** What is in the flask instead of what was weighed: iodine, wherever thiosulfate is the titrant. */
  readonly setFreeFor: (titrant: string) => string | null;
  readonly indicators: {
    readonly acid: readonly AcidIndicator[];
    readonly metal: readonly MetalIndicator[];
    readonly redox: readonly RedoxIndicator[];
  };
}
