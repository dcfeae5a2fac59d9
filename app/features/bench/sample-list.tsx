import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { readSampleList } from "~/protocol/sample-list";
import { msg, unitText } from "~/core/text";
import { colors } from "../../theme/theme";
import { useSay } from "../../words/text";

const atMost = { htmlInput: { maxLength: 120 } } as const;

interface SampleListProps {
  readonly text: string;
  /** Unit of what is found. */
  readonly unit: string;
  /** True once somebody tried to begin: what is wrong is told then. */
  readonly tried: boolean;
  readonly onChange: (text: string) => void;
}

/** Several runs at once: a list as a spreadsheet copies it, one line each. */
function SampleList({ text, unit, tried, onChange }: SampleListProps) {
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

interface SamplesProps extends OneSampleProps {
  readonly list: string | null;
  readonly setList: (list: string | null) => void;
  readonly unit: string;
  readonly tried: boolean;
}

/** One sample and who titrates it, or a list of them. */
export function Samples({ list, setList, unit, tried, ...one }: SamplesProps) {
  if (list === null) return <OneSample {...one} />;
  return <SampleList text={list} unit={unit} tried={tried} onChange={setList} />;
}

interface OneSampleProps {
  readonly sample: string;
  readonly setSample: (sample: string) => void;
  readonly bench: string;
  readonly setBench: (bench: string) => void;
  /** True where the cursor stands here at first. */
  readonly first: boolean;
}

function OneSample({ sample, setSample, bench, setBench, first }: OneSampleProps) {
  const say = useSay();
  return (
    <>
      <TextField
        name="sample"
        label={say`Sample`}
        autoFocus={first}
        value={sample}
        onChange={(event) => setSample(event.target.value)}
        helperText={say`its name or number`}
        slotProps={atMost}
      />
      <TextField
        name="bench"
        label={say`Bench or person`}
        value={bench}
        onChange={(event) => setBench(event.target.value)}
        slotProps={atMost}
      />
    </>
  );
}
