import Box from "@mui/material/Box";
import { useState, useSyncExternalStore } from "react";
import { readStored, writeStored } from "../live/browser-store";
import { TextInput } from "./text-input";
import { useSay } from "../words/text";
import { msg, type Phrase } from "~/core/text";

/** Who works in this browser, as it was last said; the same that reads on the photometer. */
const key = "steady-bead:reader";
const nobody = () => () => {};

export interface WhoWhyState {
  readonly person: string;
  readonly reason: string;
  readonly setPerson: (person: string) => void;
  readonly setReason: (reason: string) => void;
  /** To be called when it is sent: the name is offered the next time. */
  readonly remember: () => void;
}

/** Who makes a change, and why, as readings say it too. */
export function useWhoWhy(): WhoWhyState {
  const known = useSyncExternalStore(
    nobody,
    () => readStored(key) ?? "",
    () => "",
  );
  const [typed, setPerson] = useState<string | null>(null);
  const [reason, setReason] = useState("");
  const person = typed ?? known;
  return {
    person,
    reason,
    setPerson,
    setReason,
    remember: () => {
      if (person.trim() !== "") writeStored(key, person.trim());
    },
  };
}

/** Who does it, alone; what is wrong stands there until something is typed. */
export function Who({ by, problem }: { by: WhoWhyState; problem: Phrase | undefined }) {
  const say = useSay();
  const missing = by.person.trim() === "" ? problem : undefined;
  return (
    <TextInput
      label={say`Who`}
      field={{ name: "person", value: by.person, problem: missing, change: by.setPerson }}
    />
  );
}

interface WhoWhyProps {
  state: WhoWhyState;
  problems: Readonly<Record<string, Phrase | undefined>>;
  /** What the reason is called. */
  why?: Phrase;
  /** False where it is known who does it. */
  person?: boolean;
}

export function WhoWhy({ state, problems, why = msg`Why`, person = true }: WhoWhyProps) {
  const say = useSay();
  return (
    <Box
      sx={{
        display: "grid",
        gap: 1.5,
        gridTemplateColumns: person ? { xs: "1fr", sm: "minmax(96px, 1fr) 2fr" } : "1fr",
      }}
    >
      {person && (
        <TextInput
          label={say`Who`}
          field={{ name: "person", value: state.person, problem: problems.person, change: state.setPerson }}
        />
      )}
      <TextInput
        label={say(why)}
        field={{ name: "reason", value: state.reason, problem: problems.reason, change: state.setReason }}
      />
    </Box>
  );
}
