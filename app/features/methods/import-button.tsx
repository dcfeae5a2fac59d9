import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Typography from "@mui/material/Typography";
import { useRef, useState } from "react";
import { useFetcher } from "react-router";
import { useWhoWhy } from "../../ui/who-why";
import type { PathProblem } from "~/formats/validate";
import { useSay } from "../../words/text";

interface ImportAnswer {
  readonly problems: readonly PathProblem[];
}

/** Takes a method from a file; what is wrong with the file is told by path. */
export function ImportButton() {
  const say = useSay();
  const fetcher = useFetcher<ImportAnswer>();
  const by = useWhoWhy();
  const picker = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<string | null>(null);
  const problems = fetcher.data?.problems ?? [];
  return (
    <>
      <Button variant="outlined" onClick={() => picker.current?.click()}>
        {say`Import`}
      </Button>
      <input
        ref={picker}
        type="file"
        accept=".json,application/json"
        aria-label={say`Method file`}
        hidden
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          if (!chosen) return;
          setFile(chosen.name);
          void chosen
            .text()
            .then((text) =>
              fetcher.submit(
                { text, person: by.person, file: chosen.name },
                { method: "post", action: "/methods/import" },
              ),
            );
          event.target.value = "";
        }}
      />
      <Dialog
        open={file !== null && fetcher.state === "idle" && problems.length > 0}
        onClose={() => setFile(null)}
        aria-labelledby="import-title"
      >
        <DialogTitle id="import-title">
          {file} {say`is not a usable method`}
        </DialogTitle>
        <DialogContent>
          <Alert severity="error" icon={false}>
            <ul style={{ margin: 0, paddingLeft: 18 }}>
              {problems.map(({ path, message }) => (
                <li key={`${path} ${say(message)}`}>
                  <b>{path}</b>: {say(message)}
                </li>
              ))}
            </ul>
          </Alert>
          <Typography color="textSecondary" sx={{ mt: 1.5 }}>
            {say`Nothing was added. The file format is described in method.schema.json, which ships with Steady Bead.`}
          </Typography>
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setFile(null)}>{say`Close`}</Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
