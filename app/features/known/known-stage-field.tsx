import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { msg, type Phrase, joined, unitText } from "~/core/text";
import { withUnit } from "~/core/quantity";
import { concentrationText, howWords } from "~/protocol/concentration";
import { isLittle, type KnowableStage } from "~/protocol/known";
import type { KnownStage } from "~/protocol/requests";
import type { SolutionView } from "~/protocol/shelf";
import { colors } from "../../theme/theme";
import { NormalityHelp } from "../../ui/normality-help";
import { When } from "../../ui/when";
import { useSay } from "../../words/text";

/** What speaks against taking a bottle; nothing where nothing does. */
function against(bottle: SolutionView): Phrase {
  const reasons = [
    ...(bottle.state === "past its date" ? [msg`past its date`] : []),
    ...(isLittle(bottle) ? [msg`only ${withUnit(bottle.amountLeft ?? "", bottle.amountUnit)} left`] : []),
  ];
  return joined(reasons, ", ");
}

interface KnownStageFieldProps {
  readonly stage: KnowableStage;
  /** How it is known; null where it is done here. */
  readonly known: KnownStage | null;
  readonly problem: Phrase | null;
  readonly onChange: (known: KnownStage | null) => void;
}

/** Whether a stage is done here, taken from the shelf, or stated: one key changes it. */
export function KnownStageField({ stage, known, problem, onChange }: KnownStageFieldProps) {
  const say = useSay();
  const bottle = stage.bottles.find(({ current }) => current?.id === known?.assignmentId);
  const stated = known !== null && known.assignmentId === null;
  const choose = (value: string) => {
    const none = { stageKey: stage.key, value: "", plusMinus: "", from: "" };
    if (value === "here") return onChange(null);
    onChange({ ...none, assignmentId: value === "stated" ? null : value });
  };
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <TextField
        select
        label={stage.title}
        value={known === null ? "here" : (known.assignmentId ?? "stated")}
        error={problem !== null && !stated}
        helperText={problem !== null && !stated ? say(problem) : bottle && <OfBottle bottle={bottle} />}
        onChange={(event) => choose(event.target.value)}
        slotProps={{ select: { native: true }, formHelperText: { component: "div" } }}
      >
        <option value="here">{say`do it in this run`}</option>
        {stage.bottles.map((b) => (
          <option key={b.id} value={b.current?.id}>
            {say(
              joined(
                [
                  msg`take ${b.code}`,
                  ...(b.current ? [concentrationText(b.current)] : []),
                  b.name,
                  ...(against(b) === "" ? [] : [against(b)]),
                ],
                ", ",
              ),
            )}
          </option>
        ))}
        <option value="stated">{say`known otherwise: state it`}</option>
      </TextField>
      {stated && <Stating stage={stage} known={known} problem={problem} onChange={onChange} />}
    </Box>
  );
}

function OfBottle({ bottle }: { readonly bottle: SolutionView }) {
  const say = useSay();
  const { current } = bottle;
  const wrong = say(against(bottle));
  if (!current) return null;
  return (
    <>
      {say(howWords[current.how])} <When at={current.at} />
      {bottle.amountLeft !== null && `, ${say(msg`${withUnit(bottle.amountLeft, bottle.amountUnit)} left`)}`}
      {wrong !== "" && <Box sx={{ color: colors.amberDeep, fontWeight: 600 }}>{wrong}</Box>}
    </>
  );
}

interface StatingProps extends Omit<KnownStageFieldProps, "known"> {
  readonly known: KnownStage;
}

function Stating({ stage, known, problem, onChange }: StatingProps) {
  const say = useSay();
  const typed =
    (what: "value" | "plusMinus" | "from") => (event: { readonly target: { readonly value: string } }) =>
      onChange({ ...known, [what]: event.target.value });
  return (
    <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: "2fr 1fr" }}>
      <TextField
        label={say(msg`${stage.name}, ${unitText(stage.unit)}`)}
        value={known.value}
        error={problem !== null}
        helperText={problem === null ? say`or later, in the run` : say(problem)}
        onChange={typed("value")}
        slotProps={{ htmlInput: { inputMode: "decimal", autoComplete: "off", maxLength: 40 } }}
      />
      <TextField
        label="±"
        value={known.plusMinus}
        helperText={say`half the width`}
        onChange={typed("plusMinus")}
        slotProps={{ htmlInput: { inputMode: "decimal", autoComplete: "off", maxLength: 40 } }}
      />
      {stage.unit === "mol/L" && (
        <Box sx={{ gridColumn: "1 / -1", "&:empty": { display: "none" } }}>
          <NormalityHelp
            text={known.value}
            equivalents={stage.equivalents}
            onTake={(value) => onChange({ ...known, value })}
          />
        </Box>
      )}
      <TextField
        label={say`Where it is from`}
        value={known.from}
        helperText={say`a certificate, another bench`}
        onChange={typed("from")}
        slotProps={{ htmlInput: { maxLength: 120 } }}
        sx={{ gridColumn: "1 / -1" }}
      />
    </Box>
  );
}
