/* What stands on the bench. */

export const aliquotGlassware = [
  "50 mL burette",
  "25 mL one-mark pipette and filler",
  "250 mL conical flasks",
];

export const permanganateGlassware = [
  "50 mL burette, amber or shaded",
  "250 mL conical flasks",
  "measuring cylinders for the acids",
];

export const edtaGlassware = [
  "50 mL burette",
  "25 mL one-mark pipette and filler",
  "250 mL volumetric flask",
  "250 mL conical flasks",
  "weighing boats",
  "balance reading to 0.1 mg",
];

export const thiosulfateGlassware = [
  "50 mL burette",
  "25 mL one-mark pipette and filler",
  "250 mL volumetric flask",
  "250 mL conical flasks with stoppers",
  "weighing boats",
  "balance reading to 0.1 mg",
];
