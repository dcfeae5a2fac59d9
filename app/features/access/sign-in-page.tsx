import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { Phrase } from "~/core/text";
import { Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";
import { PassphraseInput } from "./passphrase-input";

interface SignInPageProps {
  /** False where no passphrase is set, so that nobody can. */
  readonly possible: boolean;
  readonly problem: Phrase | undefined;
}

/** The one page for those who have not signed in. The form is sent by the browser itself: the answer is a fresh page, with all that the person may see. */
export function SignInPage({ possible, problem }: SignInPageProps) {
  const say = useSay();
  return (
    <Page title={say`Sign in`} width={440}>
      <Sheet component="section" sx={{ p: { xs: 2, sm: 2.5 } }}>
        {possible ? (
          <Box component="form" method="post" sx={{ display: "grid", gap: 1.5 }}>
            <Typography>{say`Instructors and assistants each have a passphrase. What you may do follows from it.`}</Typography>
            <PassphraseInput name="passphrase" label={say`Passphrase`} problem={problem} known autoFocus />
            <Button type="submit" variant="contained">
              {say`Sign in`}
            </Button>
          </Box>
        ) : (
          <Typography>{say`No passphrase is set, so nobody can sign in. Set one at the terminal of the server, with bin/passphrase.`}</Typography>
        )}
      </Sheet>
    </Page>
  );
}
