import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { type Detail, type Input, isWay, type WayToMeasure } from "~/core/inputs";
import { msg, type Phrase } from "~/core/text";
import { colors } from "../../theme/theme";
import { useSay } from "../../words/text";

interface WayFieldProps {
  readonly own: Input;
  readonly ways: readonly WayToMeasure[];
  readonly chosen: string;
  /** What is asked of what it is measured with, and what was typed of it. */
  readonly details: readonly Detail[];
  readonly texts: Readonly<Record<string, string>>;
  /** What is wrong, with the key of the detail that it is about; with none, about the way itself. */
  readonly problem: { readonly key?: string; readonly message: Phrase } | null;
  /** What speaks against it, and what becomes of readings that were taken another way. */
  readonly note: Phrase;
  readonly onChoose: (key: string) => void;
  readonly onType: (key: string, text: string) => void;
}

/** One amount: what it is measured with, which piece that is, and what speaks against it. */
export function WayField(props: WayFieldProps) {
  const say = useSay();
  const { own, ways, chosen, details, texts, problem, note, onChoose, onType } = props;
  const [all, setAll] = useState(false);
  const isSaid = ({ key, seldom }: Detail) => all || !seldom || (texts[key] ?? "") !== "";
  const shown = details.some((detail) => detail.seldom && isSaid(detail)) ? details : details.filter(isSaid);
  const ofWay = problem !== null && problem.key === undefined;
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <TextField
        select
        label={own.label}
        value={chosen}
        error={ofWay}
        helperText={say(ofWay ? problem.message : note)}
        onChange={(event) => onChoose(event.target.value)}
        slotProps={{ formHelperText: { sx: ofWay ? {} : { color: colors.amberDeep } } }}
      >
        {ways.map((way) => (
          <MenuItem key={way.key} value={way.key}>
            {say(isWay(way, own) ? msg`${way.name}, as the method says` : way.name)}
          </MenuItem>
        ))}
      </TextField>
      {shown.length > 0 && (
        <Box
          sx={{ display: "grid", gap: 1.5, pl: 2, gridTemplateColumns: { xs: "1fr", sm: "repeat(3, 1fr)" } }}
        >
          {shown.map((detail) => (
            <DetailField
              key={detail.key}
              label={msg`${own.label}: ${detail.label}`}
              detail={detail}
              text={texts[detail.key] ?? ""}
              problem={problem?.key === detail.key ? problem.message : null}
              onType={(text) => onType(detail.key, text)}
            />
          ))}
        </Box>
      )}
      {shown.length < details.length && (
        <Button
          size="small"
          onClick={() => setAll(true)}
          aria-label={say`${own.label}: class, calibration`}
          sx={{ justifySelf: "start", ml: 1.5, mt: -1 }}
        >
          {say`Which piece: class, calibration …`}
        </Button>
      )}
    </Box>
  );
}

interface DetailFieldProps {
  /** With the amount that it belongs to, for those who only hear it. */
  readonly label: Phrase;
  readonly detail: Detail;
  readonly text: string;
  readonly problem: Phrase | null;
  readonly onType: (text: string) => void;
}

/** One thing that is asked of what an amount is measured with. */
function DetailField({ label, detail, text, problem, onType }: DetailFieldProps) {
  const say = useSay();
  return (
    <TextField
      size="small"
      select={detail.choices !== undefined}
      label={say(detail.label)}
      value={text}
      error={problem !== null}
      helperText={say(problem ?? detail.help ?? "")}
      onChange={(event) => onType(event.target.value)}
      slotProps={{
        inputLabel: { shrink: true },
        select: { native: true },
        htmlInput: { "aria-label": say(label), ...(detail.choices ? {} : { inputMode: "decimal" }) },
      }}
    >
      {detail.choices?.map(({ value, label: name }) => (
        <option key={value} value={value}>
          {say(name)}
        </option>
      ))}
    </TextField>
  );
}
