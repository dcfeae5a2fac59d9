import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { useFetcher } from "react-router";
import { counted } from "~/core/text";
import { useWhoWhy, WhoWhy } from "../../ui/who-why";
import { FormDialog } from "../../ui/form-dialog";
import { useSay } from "../../words/text";

interface RemoveMethodProps {
  id: string;
  runs: number;
  retired: boolean;
}

/** Takes a method of one's own out of the library, or brings it back: deleted where no run follows it, else retired. */
export function RemoveMethod({ id, runs, retired }: RemoveMethodProps) {
  const say = useSay();
  const fetcher = useFetcher<{ problems: Readonly<Record<string, string>> }>();
  const by = useWhoWhy();
  const [asking, setAsking] = useState(false);
  const problems = fetcher.data?.problems ?? {};
  const verb = retired ? say`Restore it` : runs === 0 ? say`Delete this method` : say`Retire this method`;
  const submit = () => {
    by.remember();
    void fetcher.submit(
      { person: by.person, reason: by.reason, back: retired ? "yes" : "" },
      { method: "post", action: `/methods/${id}/remove` },
    );
  };
  return (
    <>
      <Button variant="outlined" color="secondary" onClick={() => setAsking(true)}>
        {verb}
      </Button>
      {asking && (
        <FormDialog title={verb} submit={verb} onSubmit={submit} onClose={() => setAsking(false)}>
          <Typography>
            {retired
              ? say`It is offered again for new runs.`
              : runs === 0
                ? say`No run uses it: all its versions are deleted. The lab trail keeps one line.`
                : say`${counted(runs, "run")} ${runs === 1 ? say`follows` : say`follow`} it, so that it stays for ${runs === 1 ? say`that` : say`those`}; it is not offered for new runs any more.`}
          </Typography>
          {problems.form && <Alert severity="error">{problems.form}</Alert>}
          <WhoWhy
            state={by}
            problems={{
              person: by.person.trim() === "" ? problems.person : undefined,
              reason: by.reason.trim() === "" ? problems.reason : undefined,
            }}
          />
        </FormDialog>
      )}
    </>
  );
}
