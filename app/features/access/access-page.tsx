import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { Link, useFetcher } from "react-router";
import type { AccessAnswer, AccessRequest, AccessView, Role } from "~/protocol/access";
import { Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";
import { PassphraseForm } from "./passphrase-form";
import { SessionList } from "./session-list";

type Ask = (request: AccessRequest) => void;

interface RoleSheetProps {
  readonly of: Role;
  readonly title: string;
  readonly about: string;
  readonly button: string;
  readonly busy: boolean;
  readonly ask: Ask;
  /** What else can be done about this role. */
  readonly children?: ReactNode;
}

/** What a role may do, and its passphrase. */
function RoleSheet({ of, title, about, button, busy, ask, children }: RoleSheetProps) {
  return (
    <Sheet component="section" aria-labelledby={of} sx={{ p: { xs: 2, sm: 2.5 } }}>
      <Typography id={of} variant="h2" sx={{ mb: 1 }}>
        {title}
      </Typography>
      <Typography color="textSecondary" sx={{ mb: 1.5 }}>
        {about}
      </Typography>
      <PassphraseForm
        of={of}
        button={button}
        busy={busy}
        onSet={(passphrase) => ask({ intent: "passphrase", role: of, passphrase })}
      />
      {children}
    </Sheet>
  );
}

const quiet = { mt: 1.5, ml: -0.5 } as const;

interface RolesProps extends Pick<AccessView, "signsIn" | "assistants" | "loopback"> {
  readonly busy: boolean;
  readonly ask: Ask;
}

/** The passphrases; that of the assistants once there is a sign-in. */
function Roles({ signsIn, assistants, loopback, busy, ask }: RolesProps) {
  const say = useSay();
  return (
    <Box
      sx={{
        display: "grid",
        gap: 2,
        alignItems: "start",
        gridTemplateColumns: { xs: "minmax(0,1fr)", md: "minmax(0,1fr) minmax(0,1fr)" },
      }}
    >
      <RoleSheet
        of="instructor"
        title={say`Instructors`}
        about={
          signsIn
            ? say`May do everything. A new passphrase signs everybody else out.`
            : say`Set a passphrase to open the lab to the room. From then on nobody sees or changes anything without signing in.`
        }
        button={signsIn ? say`Change the passphrase` : say`Set the passphrase`}
        busy={busy}
        ask={ask}
      >
        {signsIn && loopback && (
          <Button size="small" disabled={busy} onClick={() => ask({ intent: "no-sign-in" })} sx={quiet}>
            {say`Work without a sign-in again`}
          </Button>
        )}
      </RoleSheet>
      {signsIn && (
        <RoleSheet
          of="assistant"
          title={say`Assistants`}
          about={say`Work at the bench, on the shelf and in the history. House rules, methods, backups and access are not theirs.`}
          button={assistants ? say`Change their passphrase` : say`Set their passphrase`}
          busy={busy}
          ask={ask}
        >
          {assistants && (
            <Button
              size="small"
              disabled={busy}
              onClick={() => ask({ intent: "passphrase", role: "assistant", passphrase: null })}
              sx={quiet}
            >
              {say`Take their passphrase away`}
            </Button>
          )}
        </RoleSheet>
      )}
    </Box>
  );
}

/** Who may come in: the passphrases, and who is signed in. */
export function AccessPage({ signsIn, assistants, loopback, sessions }: AccessView) {
  const say = useSay();
  const fetcher = useFetcher<AccessAnswer>();
  const busy = fetcher.state !== "idle";
  const { done = null, problem = null } = busy ? {} : (fetcher.data ?? {});
  const ask: Ask = (request) =>
    void fetcher.submit(JSON.stringify(request), { method: "post", encType: "application/json" });
  return (
    <Page
      title={say`Access`}
      note={
        signsIn
          ? say`Everybody signs in, on this machine too.`
          : say`Only this machine reaches the server, and nobody signs in.`
      }
      actions={
        <Button component={Link} to="/lab" variant="outlined">
          {say`Back to the lab`}
        </Button>
      }
    >
      <Box role="status" sx={{ mb: done || problem ? 2 : 0 }}>
        {done && <Alert severity="success">{say(done)}</Alert>}
        {problem && <Alert severity="error">{say(problem)}</Alert>}
      </Box>
      <Roles
        // Setting a passphrase begins a session anew: then what was typed is gone.
        key={sessions.find(({ own }) => own)?.id ?? ""}
        {...{ signsIn, assistants, loopback, busy, ask }}
      />
      {signsIn && (
        <SessionList sessions={sessions} busy={busy} onEnd={(id) => ask({ intent: "end-session", id })} />
      )}
      {signsIn && loopback && <OpenToRoom />}
    </Page>
  );
}

function OpenToRoom() {
  const say = useSay();
  return (
    <Sheet component="section" aria-labelledby="open" sx={{ p: { xs: 2, sm: 2.5 }, mt: 2 }}>
      <Typography id="open" variant="h2" sx={{ mb: 1 }}>
        {say`Open the lab to the room`}
      </Typography>
      <Typography>
        {say`Stop the server, and start it with HOST=0.0.0.0. Others on this network then reach it at this machine's address, and sign in. Over plain http anyone on the network can read along: TLS_CERT and TLS_KEY make it https.`}
      </Typography>
    </Sheet>
  );
}
