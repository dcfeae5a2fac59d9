import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { readSampleList } from "~/protocol/sample-list";
import { msg, unitText } from "~/core/text";
import { colors } from "../../theme/theme";
import { useSay } from "../../words/text";

interface SampleListProps {
  readonly text: string;
  /** Unit of what is found. */
  readonly unit: string;
  /** True once somebody tried to begin: what is wrong is told then. */
  readonly tried: boolean;
  readonly onChange: (text: string) => void;
}

/** Several runs at once: a list as a spreadsheet copies it, one line each. */
export function SampleList({ text, unit, tried, onChange }: SampleListProps) {
  const say = useSay();
  const { rows, problems } = readSampleList(text);
  const [first] = problems;
  const wrong = first
    ? msg`Line ${first.line}: ${first.message}.`
    : msg`Type or paste one line for each run.`;
  const isWrong = tried && (first !== undefined || rows.length === 0);
  return (
    <>
      <input type="hidden" name="sample" value="" />
      <input type="hidden" name="bench" value="" />
      <input type="hidden" name="several" value={JSON.stringify(rows)} />
      <TextField
        label={say`Samples, one line each`}
        multiline
        minRows={4}
        maxRows={10}
        autoFocus
        value={text}
        error={isWrong}
        onChange={(event) => onChange(event.target.value)}
        placeholder={"R-9, bench 1\nR-10, bench 2\nR-10, bench 2, duplicate"}
        helperText={
          isWrong ? (
            say(wrong)
          ) : (
            <Box component="span" sx={{ color: colors.inkSoft }}>
              {say`Sample, bench or person, and where it is no plain sample: duplicate, spike 0.050 or check 0.1000 (${unitText(unit)}).`}
            </Box>
          )
        }
      />
    </>
  );
}
