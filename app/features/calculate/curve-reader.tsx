import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useDeferredValue, useMemo } from "react";
import { readCurve, uncertaintiesOf } from "~/core/curves";
import { pKwAt } from "~/core/equilibria";
import { joined, msg, type Phrase } from "~/core/text";
import { readCurveTable } from "~/formats/curve-table";
import { MolarInput } from "../../ui/molar-input";
import { numberIn } from "../../ui/number-in";
import { Sheet } from "../../ui/sheet";
import { TextInput } from "../../ui/text-input";
import { useSay } from "../../words/text";
import { useTexts } from "./board";
import { CurveResults, type ReadTexts } from "./curve-results";
import { sampleCurve } from "./sample-curve";

/** What the burette read at the start, mL: zero where nothing is typed; null where that is no number. */
const startOf = ({ start = "" }: Readonly<Record<string, string>>): number | null =>
  start.trim() === "" ? 0 : numberIn(start);

/** What the fields come to; null while one of them says nothing, or a line is wrong. */
function readTexts(texts: Readonly<Record<string, string>>): ReadTexts | null {
  const [flaskMl, titrant, uPH, uMl] = [texts.V, texts.ct, texts.uPH, texts.uMl].map(numberIn);
  const start = startOf(texts);
  const { points, problems } = readCurveTable(texts.pairs ?? "", { startMl: start ?? 0 });
  if (start === null || !flaskMl || !titrant || !uPH || !uMl) return null;
  if (problems.length > 0 || points.length === 0) return null;
  const setting = { flaskMl, titrant, pKw: pKwAt(25), ...uncertaintiesOf(uPH, uMl) };
  return { points, flaskMl, titrant, massG: numberIn(texts.mass), reading: readCurve(points, setting) };
}

/** A recorded pH curve: pasted, and read in every way that there is. */
export function CurveReader() {
  const say = useSay();
  const form = useTexts({
    ...{ pairs: "", V: "50", ct: "0.1", start: "0", mass: "", uPH: "0.02", uMl: "0.03" },
  });
  const { texts, words } = form;
  const settled = useDeferredValue(texts);
  const typed = useMemo(() => readTexts(settled), [settled]);
  const { problems } = useMemo(
    () => readCurveTable(settled.pairs ?? "", { startMl: startOf(settled) ?? 0 }),
    [settled],
  );
  return (
    <Box
      sx={{
        display: "grid",
        gap: 2,
        alignItems: "start",
        gridTemplateColumns: { xs: "minmax(0,1fr)", md: "320px minmax(0,1fr)" },
      }}
    >
      <ReaderFields {...form} problems={problems} onSample={() => words("pairs").change(sampleCurve)} />
      <Sheet
        component="section"
        aria-label={say`What the curve tells`}
        aria-live="polite"
        sx={{ p: 2.5, minHeight: 160, minWidth: 0 }}
      >
        {typed === null ? (
          <Typography color="textSecondary">{say`Paste volumes and pH values to read the curve.`}</Typography>
        ) : (
          <CurveResults {...typed} />
        )}
      </Sheet>
    </Box>
  );
}

interface ReaderFieldsProps extends ReturnType<typeof useTexts> {
  readonly problems: readonly Phrase[];
  readonly onSample: () => void;
}

function ReaderFields({ texts, words, number, problems, onSample }: ReaderFieldsProps) {
  const say = useSay();
  return (
    <Sheet sx={{ p: 2.25, display: "grid", gap: 2 }}>
      <TextInput
        label={say`Volume and pH, a pair a line`}
        field={words("pairs", problems.length > 0 ? joined(problems, "; ") : undefined)}
        help={say`pasted from a table or a logger’s file: the last two columns count`}
        multiline
        mostRows={14}
        number
      />
      {(texts.pairs ?? "").trim() === "" && (
        <Button variant="outlined" onClick={onSample}>
          {say`Use an example`}
        </Button>
      )}
      <TextInput label={say`In the flask at the start, mL`} field={number("V")} number />
      <MolarInput label={say`Concentration of the titrant, mol/L`} field={number("ct")} />
      <TextInput
        label={say`Burette at the start, mL`}
        field={words(
          "start",
          startOf(texts) === null ? msg`Type what it read, or nothing for zero` : undefined,
        )}
        number
      />
      <TextInput
        label={say`Mass in the flask, g`}
        field={number("mass")}
        number
        help={say`for the equivalent mass; may stay empty`}
      />
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: "1fr 1fr" }}>
        <TextInput label={say`± of the meter`} field={number("uPH")} number />
        <TextInput label={say`± of a reading, mL`} field={number("uMl")} number />
      </Box>
    </Sheet>
  );
}
