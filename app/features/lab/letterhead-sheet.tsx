import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { LabView } from "~/protocol/lab";
import { msg } from "~/core/text";
import { Sheet } from "../../ui/sheet";
import { TextInput } from "../../ui/text-input";
import { type WhoWhyState, Who } from "../../ui/who-why";
import { useSay } from "../../words/text";
import type { Ask } from "./ask";

interface LetterheadSheetProps {
  readonly lab: LabView;
  readonly by: WhoWhyState;
  readonly busy: boolean;
  readonly ask: Ask;
}

const mostLines = 3;
const mostCharacters = 240;

const problemIn = (text: string) =>
  text.trim().split("\n").length > mostLines
    ? msg`Three lines at most.`
    : text.length > mostCharacters
      ? msg`${mostCharacters} characters at most; these are ${text.length}.`
      : undefined;

/** Whose reports they are: what stands at the head of each. */
export function LetterheadSheet({ lab, by, busy, ask }: LetterheadSheetProps) {
  const say = useSay();
  const [text, setText] = useState(lab.letterhead);
  const problem = problemIn(text);
  const changed = text.trim() !== lab.letterhead;
  const ready = changed && problem === undefined && by.person.trim() !== "";
  const save = () => {
    by.remember();
    ask({ intent: "letterhead", text: text.trim(), person: by.person.trim() });
  };
  return (
    <Sheet component="section" aria-labelledby="letterhead" sx={{ p: { xs: 2, sm: 2.5 } }}>
      <Typography id="letterhead" variant="h2" sx={{ mb: 1 }}>
        {say`Report header`}
      </Typography>
      <Box sx={{ display: "grid", gap: 1.5 }}>
        <TextInput
          multiline
          label={say`Header of every report`}
          field={{ name: "letterhead", value: text, problem, change: setText }}
          help={say`Up to three lines, such as the institution, the room and the course.`}
        />
        {changed && <Who by={by} problem={undefined} />}
        <Button variant="outlined" disabled={busy || !ready} onClick={save}>
          {say`Save the header`}
        </Button>
      </Box>
    </Sheet>
  );
}
