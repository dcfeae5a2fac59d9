import { presumedOf } from "~/core/inputs";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { FieldState } from "~/core/stages";
import { fieldKey } from "~/core/method";
import type { Input } from "~/core/inputs";
import { isPreselected } from "~/core/record";
import { concentrationOf } from "~/protocol/concentration";
import { useRunInHand } from "../../../entry/run-context";
import { colors, fonts } from "../../../theme/theme";
import { bottleUsed, FromBottle } from "./from-bottle";
import { useSay } from "../../../words/text";
import { unitText } from "~/core/text";

interface StageInputProps {
  input: Input;
  states: readonly FieldState[];
  /** True where the result is held against it. */
  target: boolean;
  /** True where a bottle of it stands on the shelf. */
  fromShelf: boolean;
  /** All fields of the input, those with it that nobody types. */
  all: readonly FieldState[];
  onChoose: (state: FieldState) => void;
  onTake: () => void;
}

/** One thing read once: its label and its readings, each a button that opens it to be typed or corrected. */
export function StageInput(props: StageInputProps) {
  const say = useSay();
  const { input, states, target, fromShelf, all, onChoose, onTake } = props;
  const { record: run, locked } = useRunInHand();
  const used = bottleUsed(all, run);
  const label = used && concentrationOf(used);
  const main = states.find(({ field }) => !field.kind.endsWith("plus-minus"));
  const read = main?.present != null;
  const preselectedNow = main?.present != null && isPreselected(main.present);
  const usualTexts = presumedOf(input);
  const presumed = Object.keys(usualTexts).length > 0;
  // Of two readings each is named; what the label of the whole says already is left out.
  const oneOf = ({ field }: FieldState) =>
    (field.named || states.filter((s) => !s.field.optional).length > 1) && !field.kind.endsWith("plus-minus")
      ? `${say(field.short ?? field.label)}:`
      : "";
  return (
    <Box sx={{ display: "flex", alignItems: "center", flexWrap: "wrap", columnGap: 1 }}>
      <span>{input.label}</span>
      {states.map((state) => {
        const { field, present } = state;
        if (label && field.kind.endsWith("plus-minus")) {
          return (
            <span key={fieldKey(field)} style={{ fontFamily: fonts.reading, color: colors.ink }}>
              {label.plusMinus && `± ${label.plusMinus}`}
            </span>
          );
        }
        const half = field.kind.endsWith("plus-minus");
        // What a bottle brings keeps guard digits; it is shown as its label has it.
        // The ± of a presumed value is that value's: one that was typed has its own, or none.
        const usual = half && read ? undefined : usualTexts[field.kind];
        const value = half ? (present?.text ?? usual) : (label?.value ?? present?.text ?? usual);
        if (field.kind === "glass.piece" && !present) return null;
        // No value, no ±.
        if (half && !present && !read && !presumed) return null;
        // A target or a limit is what it is.
        const shown = value ?? (half ? (read && !target ? say`not stated` : "0") : say`type it`);
        const name = half ? say`Half width of ${input.label.toLowerCase()}` : oneOf(state) || input.label;
        return (
          <Box
            key={fieldKey(field)}
            component="span"
            sx={{ display: "inline-flex", alignItems: "center", gap: 0.5 }}
          >
            {half ? "±" : field.kind === "glass.piece" ? say`pipette no.` : oneOf(state)}
            {locked ? (
              <span style={{ fontFamily: fonts.reading, color: colors.ink }}>
                {half ? shown : (value ?? "–")}
              </span>
            ) : (
              <Button
                size="small"
                onClick={() => onChoose(state)}
                aria-label={say`${name.replace(/:$/, "")} ${shown} ${unitText(field.unit)}, change`}
                sx={{
                  fontFamily: value === undefined && !half ? undefined : fonts.reading,
                  fontWeight: 500,
                  minWidth: 0,
                  px: 0.75,
                  textDecoration: "underline dotted",
                }}
              >
                {shown}
              </Button>
            )}
          </Box>
        );
      })}
      <span>
        {main?.field.named ? "" : say(unitText(main?.field.unit ?? ""))}
        {label?.meaning === "k = 2" ? " (k = 2)" : ""}
        {!read && presumed ? say`, presumed` : ""}
      </span>
      {used && <FromBottle used={used} />}
      {used && preselectedNow && <span>{say`(preselected)`}</span>}
      {fromShelf && !locked && (
        <Button size="small" onClick={onTake} aria-label={say`${input.label}: take from the shelf`}>
          {read ? say`another bottle` : say`from the shelf`}
        </Button>
      )}
    </Box>
  );
}
