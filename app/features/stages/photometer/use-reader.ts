import { inUnit } from "~/core/quantity";
import { resultQuantity, type RunEvaluation } from "~/core/stages";
import { useStoredText } from "../../../live/stored-text";

/** Who reads, remembered in this browser: at a bench it is the same person for an hour. */
export function useReader(bench: string): [string, (person: string) => void] {
  const [stored, remember] = useStoredText("steady-bead:reader");
  return [stored ?? bench, remember];
}

/** The wavelength that a run settled on, nm; where it did not, what its method usually takes. */
export function wavelengthOf({ stages }: RunEvaluation): number {
  const chosen = stages.find((s) => s.kind === "preparation" && s.definition.spectra);
  if (chosen?.kind !== "preparation") return 500;
  const q = resultQuantity(chosen);
  return q ? Math.round(inUnit(q, "nm")) : (chosen.definition.spectra?.usualNm ?? 500);
}
