import Box from "@mui/material/Box";
import { type ReactNode, useSyncExternalStore } from "react";
import { Link, useLocation } from "react-router";
import { takeNewVersion, useNewVersion } from "../offline/register";
import { colors } from "../theme/theme";
import { readStored, writeStored } from "./browser-store";
import { useOutbox } from "./outbox";
import { useReached } from "./reach";
import { useSay } from "../words/text";

const stripStyle = {
  bgcolor: colors.amberPale,
  color: colors.amberDeep,
  px: 2.5,
  py: 0.75,
  borderBottom: `1px solid ${colors.line}`,
  "& a, & button": { color: "inherit", fontWeight: 650 },
  "& button": {
    border: 0,
    background: "none",
    p: 0,
    ml: 1,
    font: "inherit",
    textDecoration: "underline",
    cursor: "pointer",
  },
  "@media print": { display: "none" },
} as const;

function Strip({ children, role = "status" }: { children: ReactNode; role?: "status" | "note" }) {
  return (
    <Box role={role} sx={stripStyle}>
      {children}
    </Box>
  );
}

const plainKey = "steady-bead.plain-http-read";
const plainListeners = new Set<() => void>();

/** Over plain http from another device a browser keeps no pages, and may throw away what waits. */
function usePlainHttp(): boolean {
  return useSyncExternalStore(
    (listener) => {
      plainListeners.add(listener);
      return () => plainListeners.delete(listener);
    },
    () => !window.isSecureContext && readStored(plainKey) !== "yes",
    () => false,
  );
}

/** On every screen: that the server does not answer, what waits in this browser, and what is missing for work without the network. */
export function ReachStrip() {
  const say = useSay();
  const reached = useReached();
  const kept = useOutbox();
  const { pathname } = useLocation();
  const plain = usePlainHttp();
  const fresh = useNewVersion();
  // A run's own page tells what waits of it.
  const otherRuns = kept.filter(({ runId }) => pathname !== `/runs/${runId}`);
  const waiting = otherRuns.filter(({ refused }) => refused === null);
  const [refused] = otherRuns.filter((k) => k.refused !== null);
  return (
    <>
      {!reached && (
        <Strip>
          <b>{say`The server does not answer.`}</b>{" "}
          {say`Keep working: what you enter is kept in this browser and sent when it does.`}
        </Strip>
      )}
      {waiting.length > 0 && (
        <Strip>
          {say`${waiting.length === 1 ? say`One change` : say`${waiting.length} changes`} of`}{" "}
          <Link to={`/runs/${waiting[0]?.runId ?? ""}`}>
            {new Set(waiting.map(({ runId }) => runId)).size === 1 ? say`a run` : say`several runs`}
          </Link>{" "}
          {say`${waiting.length === 1 ? say`waits` : say`wait`} in this browser for the server.`}
        </Strip>
      )}
      {refused && (
        <Strip>
          {say`A change was not saved and needs a decision:`}{" "}
          <Link to={`/runs/${refused.runId}`}>{say`see its run`}</Link>.
        </Strip>
      )}
      {fresh && (
        <Strip>
          {say`A new version is ready. What you typed is kept.`}
          <button type="button" onClick={takeNewVersion}>
            {say`Use it now`}
          </button>
        </Strip>
      )}
      {plain && (
        <Strip role="note">
          {say`This device uses plain http, so its browser keeps no pages: without the network, do not close or reload them. To change that, start the server with TLS_CERT and TLS_KEY.`}
          <button
            type="button"
            onClick={() => {
              writeStored(plainKey, "yes");
              plainListeners.forEach((listener) => listener());
            }}
          >
            {say`Got it`}
          </button>
        </Strip>
      )}
    </>
  );
}
