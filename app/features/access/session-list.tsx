import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { msg, type Phrase } from "~/core/text";
import type { Role, SessionView } from "~/protocol/access";
import { fonts } from "../../theme/theme";
import { linedTable } from "../../ui/lined-table";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import { useSay } from "../../words/text";

const roleWords: Readonly<Record<Role, Phrase>> = { instructor: msg`instructor`, assistant: msg`assistant` };

/** What a browser calls itself holds the names of all that came before it: what is left is what tells devices apart. */
function deviceIn(browser: string): string {
  const system = /\(([^;)]+)/.exec(browser)?.[1] ?? "";
  return system.replace(/^(X11|compatible)$/, "Linux") || browser.slice(0, 40);
}

interface SessionListProps {
  readonly sessions: readonly SessionView[];
  readonly busy: boolean;
  readonly onEnd: (id: string) => void;
}

/** Who is signed in, each of whom can be signed out. */
export function SessionList({ sessions, busy, onEnd }: SessionListProps) {
  const say = useSay();
  return (
    <Sheet component="section" aria-labelledby="signed-in" sx={{ p: { xs: 2, sm: 2.5 }, mt: 2 }}>
      <Typography id="signed-in" variant="h2" sx={{ mb: 1 }}>
        {say`Signed in now`}
      </Typography>
      <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label={say`Sessions that are open`}>
        <Box component="table" sx={{ ...linedTable, width: "100%", whiteSpace: "nowrap" }}>
          <thead>
            <tr>
              {[say`As`, say`Device`, say`Address`, say`Since`, say`Last seen`, ""].map((head) => (
                <th key={head} scope="col">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sessions.map(({ id, role, browser, address, beganAt, seenAt, own }) => (
              <tr key={id} data-testid="session">
                <td>{say(roleWords[role])}</td>
                <td>{deviceIn(browser)}</td>
                <Box component="td" sx={{ fontFamily: fonts.reading }}>
                  {address}
                </Box>
                <td>
                  <When at={beganAt} as="time" />
                </td>
                <td>
                  <When at={seenAt} as="time" />
                </td>
                <td>
                  {own ? (
                    say`this one`
                  ) : (
                    <Button size="small" disabled={busy} onClick={() => onEnd(id)}>
                      {say`End it`}
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
    </Sheet>
  );
}
