import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { lazy, Suspense, useState } from "react";
import type { TitrationStage } from "~/core/method";
import { useRunInHand } from "../../../entry/run-context";
import type { Field } from "~/core/inputs";
import type { Guidance } from "~/core/stages";
import { colors } from "../../../theme/theme";
import { numbersOut } from "../../../ui/number-text";
import { useSay } from "../../../words/text";

// Comes when somebody asks for it.
const ExpectDialog = lazy(() => import("./expect-dialog").then((m) => ({ default: m.ExpectDialog })));

/** Where to expect the end point and where to slow down, or what is missing for that. */
export function GuidanceLine(props: {
  guidance: Guidance | null;
  missing: Field | null;
  closed: boolean;
  /** True where something but the titer of this flask is still to be read, and then more will be known. */
  first: boolean;
  stage: TitrationStage;
  /** After something was chosen: the cursor goes on. */
  onDone: () => void;
}) {
  const say = useSay();
  const { guidance, missing, closed, first } = props;
  const text = guidance
    ? guidance.text
    : missing && first
      ? missing.kind.startsWith("mass")
        ? say`Weigh the sample first; the expected end point follows from the mass.`
        : say`Measure out the sample first; the expected end point follows from the volume.`
      : say`End point unknown. Run a quick rough titration first.`;
  const known = !closed && guidance !== null && guidance.from !== "presumed";
  const stop = !closed && guidance !== null && !guidance.roomLeft;
  return (
    <Box
      role="status"
      sx={{
        bgcolor: stop ? colors.amberPale : known ? colors.pinkPale : colors.tealWash,
        color: stop ? colors.amberDeep : colors.ink,
        borderRadius: "10px",
        px: 1.75,
        py: 1.25,
        fontSize: "1.05rem",
        lineHeight: 1.4,
        fontWeight: stop ? 700 : 400,
      }}
    >
      {closed
        ? say`The set is closed. You can add another trial; it is judged with the others.`
        : numbersOut(say(text))}
      {!closed && <Expecting guidance={guidance} stage={props.stage} onDone={props.onDone} />}
    </Box>
  );
}

interface ExpectingProps {
  readonly guidance: Guidance | null;
  readonly stage: TitrationStage;
  readonly onDone: () => void;
}

/** While no trial says where the end comes: what a person expects, or takes of the method. */
function Expecting({ guidance, stage, onDone }: ExpectingProps) {
  const say = useSay();
  const { send, locked } = useRunInHand();
  const [typing, setTyping] = useState(false);
  const { key: stageKey, presumed, expected } = stage;
  const byPerson = guidance?.from === "expected" && expected !== undefined;
  if (locked || (guidance !== null && guidance.from !== "presumed" && !byPerson)) return null;
  const take = () =>
    void send({
      ...{ intent: "expect", stageKey },
      expected: { value: presumed ?? 0, in: "unit", of: stage.result.symbol, presumed: true },
    }).then(onDone);
  return (
    <Box component="span" sx={{ whiteSpace: "nowrap", ml: 1 }}>
      {guidance?.from === "presumed" && (presumed ?? 0) > 0 && (
        <Button size="small" onClick={take} sx={{ minHeight: 28, py: 0 }}>
          {say`Expect that`}
        </Button>
      )}
      <Button size="small" onClick={() => setTyping(true)} sx={{ minHeight: 28, py: 0 }}>
        {say`Expect …`}
      </Button>
      <Suspense>{typing && <ExpectDialog stage={stage} onClose={() => setTyping(false)} />}</Suspense>
    </Box>
  );
}
