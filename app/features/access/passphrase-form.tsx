import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { msg } from "~/core/text";
import { problemOfPassphrase, type Role, shortestPassphrase } from "~/protocol/access";
import { useSay } from "../../words/text";
import { PassphraseInput } from "./passphrase-input";

interface PassphraseFormProps {
  readonly of: Role;
  readonly button: string;
  readonly busy: boolean;
  readonly onSet: (text: string) => void;
}

/** A new passphrase, typed twice, since nobody sees what is typed. */
export function PassphraseForm({ of, button, busy, onSet }: PassphraseFormProps) {
  const say = useSay();
  const [text, setText] = useState("");
  const [again, setAgain] = useState("");
  const [tried, setTried] = useState(false);
  const wrong = problemOfPassphrase(text);
  const differs = text === again ? undefined : msg`This differs from the first one.`;
  return (
    <Box
      component="form"
      noValidate
      sx={{ display: "grid", gap: 1.5 }}
      onSubmit={(event) => {
        event.preventDefault();
        setTried(true);
        if (!wrong && !differs) onSet(text);
      }}
    >
      <PassphraseInput
        name={`${of}-passphrase`}
        label={say`New passphrase`}
        problem={tried ? wrong : undefined}
        help={say`At least ${shortestPassphrase} characters.`}
        known={false}
        value={text}
        change={setText}
      />
      <PassphraseInput
        name={`${of}-passphrase-again`}
        label={say`Type it again`}
        problem={tried && !wrong ? differs : undefined}
        known={false}
        value={again}
        change={setAgain}
      />
      <Button type="submit" variant="outlined" disabled={busy} sx={{ justifySelf: "start" }}>
        {button}
      </Button>
    </Box>
  );
}
