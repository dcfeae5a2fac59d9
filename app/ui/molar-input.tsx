import Box from "@mui/material/Box";
import { NormalityHelp } from "./normality-help";
import { TextInput, type TextInputProps } from "./text-input";

/** A concentration in mol/L; one that is typed as a normality is put into mol/L by one key. */
export function MolarInput({ label, field }: Pick<TextInputProps, "label" | "field">) {
  return (
    <Box>
      <TextInput label={label} field={field} number />
      <NormalityHelp text={field.value} equivalents={null} onTake={field.change} />
    </Box>
  );
}
