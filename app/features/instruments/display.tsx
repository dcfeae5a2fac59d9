import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { colors, fonts } from "../../theme/theme";
import { connectInstrument, disconnectInstrument, type InstrumentState, useInstrument } from "./connections";
import type { Role } from "./settings";

interface DisplayProps {
  role: Role;
  /** Takes a reading that stands still; left out where there is nothing to take it for. */
  onTake?: (shown: string) => void;
  /** About what is put on the pan of a simulated balance, g. */
  loadG?: number;
}

const names: Record<Role, string> = { balance: "Balance", burette: "Burette", thermometer: "Thermometer" };

/** An instrument's display: what it shows, whether that stands still, and a button that takes it. */
export function InstrumentDisplay({ role, onTake, loadG }: DisplayProps) {
  const instrument = useInstrument(role);
  const { state, message, reading } = instrument;
  if (state === "off" || state === "connecting" || state === "failed") {
    return <ConnectButton message={message} state={state} role={role} />;
  }
  return (
    <Box
      role="group"
      aria-label={`${names[role]} display`}
      sx={{
        display: "flex",
        alignItems: "center",
        flexWrap: "wrap",
        columnGap: 1.25,
        rowGap: 0.75,
        bgcolor: colors.tealWash,
        border: `1px solid ${colors.line}`,
        borderRadius: "10px",
        px: 1.25,
        py: 0.75,
      }}
    >
      <Box sx={{ color: colors.inkSoft }}>{names[role]}</Box>
      <Box
        data-testid={`${role}-display`}
        sx={{ fontFamily: fonts.reading, fontSize: "1.3rem", minWidth: "6ch" }}
      >
        {reading ? `${reading.text} ${reading.unit}` : "–"}
      </Box>
      <Box sx={{ color: reading?.stable ? colors.tealDeep : colors.amberDeep, minWidth: "5.5em" }}>
        {reading === null ? "no reading" : reading.stable ? "● steady" : "○ settling"}
      </Box>
      {onTake && (
        <Button
          size="small"
          variant="contained"
          disabled={!reading?.stable}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => reading && onTake(reading.text)}
        >
          Take reading
        </Button>
      )}
      <Controls instrument={instrument} loadG={loadG ?? 10} />
      <Button size="small" sx={{ ml: "auto" }} onClick={() => disconnectInstrument(role)}>
        Disconnect
      </Button>
      {message !== "" && (
        <Box role="alert" sx={{ color: colors.brick, fontWeight: 600, width: 1 }}>
          {message}
        </Box>
      )}
    </Box>
  );
}

interface ConnectButtonProps {
  readonly message: string;
  readonly state: "off" | "connecting" | "failed";
  readonly role: Role;
}

function ConnectButton({ message, state, role }: ConnectButtonProps) {
  return (
    <Box sx={{ display: "flex", alignItems: "center", flexWrap: "wrap", gap: 1 }}>
      {message !== "" && (
        <Box role="alert" sx={{ color: colors.brick, fontWeight: 600, width: 1 }}>
          {message}
        </Box>
      )}
      <Button
        size="small"
        variant="outlined"
        disabled={state === "connecting"}
        onClick={() => void connectInstrument(role)}
      >
        {state === "failed" ? "Connect again" : `Connect the ${names[role].toLowerCase()}`}
      </Button>
    </Box>
  );
}

/** What can be done to a simulated instrument by hand. */
function Controls({ instrument: { acts, reading }, loadG }: { instrument: InstrumentState; loadG: number }) {
  const [running, setRunning] = useState(false);
  const { balance, burette, thermometer } = acts;
  const button = (label: string, act: () => void) => (
    <Button size="small" variant="outlined" onMouseDown={(event) => event.preventDefault()} onClick={act}>
      {label}
    </Button>
  );
  if (balance) {
    return (
      <>
        {button("Put it on", () => balance.load(loadG))}
        {button("Take it off", () => balance.load(0))}
        {button("Tare", () => balance.tare())}
      </>
    );
  }
  if (burette) {
    const turn = () => {
      (running ? burette.close : burette.open)();
      setRunning(!running);
    };
    return (
      <>
        {button(running ? "Close the tap" : "Open the tap", turn)}
        {button("One drop", () => burette.drop())}
        {button("Fill up", () => {
          burette.refill();
          setRunning(false);
        })}
        <Box sx={{ color: colors.inkSoft }}>{reading === null ? "" : `${burette.drops()} drops`}</Box>
      </>
    );
  }
  return thermometer ? button("Heat it again", () => thermometer.heat(85)) : null;
}
