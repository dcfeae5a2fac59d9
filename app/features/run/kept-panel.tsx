import { methodOf, type RunRecord } from "~/core/run";
import { useRunInHand } from "../../entry/run-context";
import { isTaken } from "../../live/post";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { v7 as newId } from "uuid";
import { fieldKey, stageFields, trialFields } from "~/core/method";
import { trialWords } from "~/core/record";
import type { Observe } from "~/core/change";
import type { UnsentChange } from "../../live/browser-database";
import { letGo, tryAgain } from "../../live/outbox";
import { colors, fonts } from "../../theme/theme";
import { When } from "../../ui/when";
import { useSay } from "../../words/text";
import { msg, type Phrase } from "~/core/text";

/** What is read, and of which flask: "Final reading of trial 2". */
function whatOf({ stageKey, trial: sent, symbol, kind }: Observe, record: RunRecord): Phrase {
  const definition = methodOf(record).stages.find((s) => s.key === stageKey);
  if (!definition) return msg`A reading`;
  const fields = (sent ? trialFields : stageFields)(definition, record.houseRules);
  const label = fields.find((f) => fieldKey(f) === fieldKey({ symbol, kind }))?.label ?? msg`A reading`;
  const trial = record.stages.flatMap((s) => s.trials).find((t) => t.id === sent?.id);
  return trial ? msg`${label} of ${trialWords(trial)}` : label;
}

const wordsOf = ({ request }: UnsentChange, record: RunRecord): Phrase => {
  if (request.intent === "observe") return msg`${whatOf(request, record)}, ${request.text}`;
  if (request.intent === "enter") {
    const texts = request.rows.flatMap(({ readings }) => readings.map((r) => r.text));
    const typed = texts.slice(0, 6).join(", ");
    return texts.length === 1 ? msg`Reading ${typed}` : msg`Readings ${typed}`;
  }
  return request.intent === "start-timer" ? msg`Timer: ${request.what}` : msg`The end of a timer`;
};

/** What of this run is in this browser alone: waiting for the server, not taken by it, or one of two readings. */
export function KeptPanel() {
  const say = useSay();
  const { kept, record } = useRunInHand();
  if (kept.length === 0) return null;
  const waiting = kept.filter((k) => k.refused === null);
  const refused = kept.filter((k) => k.refused !== null);
  return (
    <Box
      component="section"
      aria-label={say`Kept in this browser`}
      sx={{
        display: "grid",
        gap: 1,
        mb: 1.5,
        bgcolor: colors.amberPale,
        border: `1.5px solid ${colors.amber}`,
        borderRadius: "12px",
        px: 2,
        py: 1.25,
      }}
    >
      {waiting.length > 0 && (
        <Box role="status">
          <b>
            {say`${waiting.length === 1 ? say`One change is` : say`${waiting.length} changes are`} waiting for the server.`}
          </b>{" "}
          {say`Keep working. They stay in this browser, even if you close it, and are sent in order when the server answers.`}
          <Box component="ul" sx={{ m: 0, mt: 0.5, pl: 2.5, color: colors.amberDeep }}>
            {waiting.slice(0, 6).map((k) => (
              <li key={k.seq}>{say(wordsOf(k, record))}</li>
            ))}
            {waiting.length > 6 && <li>{say`and ${waiting.length - 6} more`}</li>}
          </Box>
        </Box>
      )}
      {refused.map((k) =>
        k.standing && k.request.intent === "observe" ? (
          <TwoReadings key={k.seq} kept={k} request={k.request} record={record} />
        ) : (
          <Box key={k.seq} role="alert">
            <b>{say`${wordsOf(k, record)}, was not accepted:`}</b> {k.refused && say(k.refused)}.{" "}
            <Button size="small" onClick={() => void tryAgain(k.seq)}>
              {say`Send it again`}
            </Button>
            <Button size="small" color="secondary" onClick={() => void letGo(k.seq)}>
              {say`Discard it`}
            </Button>
          </Box>
        ),
      )}
    </Box>
  );
}

interface TwoReadingsProps {
  kept: UnsentChange;
  request: Observe;
  record: RunRecord;
}

/** Two devices read one thing, and differently: both are kept, and someone says which it is. */
function TwoReadings({ kept, request, record }: TwoReadingsProps) {
  const say = useSay();
  const { send } = useRunInHand();
  const { standing } = kept;
  if (!standing) return null;
  const correct = (text: string, supersedes: string, reason: string) => {
    const id = newId();
    return [id, { ...request, id, text, supersedes, reason } as const] as const;
  };
  /** Whichever stands in the end, the other stands in the history of the field beside it. */
  const settle = async (mine: boolean) => {
    const why = say`two readings, ${standing.text} and ${request.text}: ${mine ? request.text : standing.text} it is`;
    const [id, first] = correct(request.text, standing.id, mine ? why : say`a second reading`);
    const answers = [await send(first)];
    if (!mine) answers.push(await send(correct(standing.text, id, why)[1]));
    if (answers.every(isTaken)) await letGo(kept.seq);
    else await tryAgain(kept.seq);
  };
  const number = { fontFamily: fonts.reading } as const;
  return (
    <Box role="alert">
      <b>{say`${whatOf(request, record)} was read twice.`}</b> <span style={number}>{standing.text}</span>{" "}
      {say`by ${standing.person || say`another device`},`} <When at={standing.at} as="exact" />
      {say`, and`} <span style={number}>{request.text}</span> {say`here. Which one is it?`}
      <Box sx={{ display: "flex", gap: 1, mt: 0.75, flexWrap: "wrap" }}>
        <Button variant="contained" onClick={() => void settle(false)}>
          {say`It is ${standing.text}`}
        </Button>
        <Button variant="outlined" onClick={() => void settle(true)}>
          {say`It is ${request.text}`}
        </Button>
      </Box>
    </Box>
  );
}
