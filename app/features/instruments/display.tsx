import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import { colors, fonts } from "../../theme/theme";
import { connectInstrument, disconnectInstrument, type InstrumentState, useInstrument } from "./connections";
import type { Role } from "./settings";
import { withUnit } from "~/core/quantity";
import { useSay } from "../../words/text";
import { msg, type Phrase, uncapitalized } from "~/core/text";

interface DisplayProps {
  role: Role;
  /** Takes a reading that stands still; left out where there is nothing to take it for. */
  onTake?: (shown: string) => void;
  /** About what is put on the pan of a simulated balance, g. */
  loadG?: number;
}

const names: Record<Role, Phrase> = {
  balance: msg`Balance`,
  burette: msg`Burette`,
  thermometer: msg`Thermometer`,
};

/** An instrument's display: what it shows, whether that stands still, and a button that takes it. */
export function InstrumentDisplay({ role, onTake, loadG }: DisplayProps) {
  const say = useSay();
  const instrument = useInstrument(role);
  const { state, message, reading } = instrument;
  if (state === "off" || state === "connecting" || state === "failed") {
    return <ConnectButton message={message} state={state} role={role} />;
  }
  return (
    <Box
      role="group"
      aria-label={say`${names[role]} display`}
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
      <Box sx={{ color: colors.inkSoft }}>{say(names[role])}</Box>
      <Box
        data-testid={`${role}-display`}
        sx={{ fontFamily: fonts.reading, fontSize: "1.3rem", minWidth: "6ch" }}
      >
        {reading ? say(withUnit(reading.text, reading.unit)) : "–"}
      </Box>
      <Box sx={{ color: reading?.stable ? colors.tealDeep : colors.amberDeep, minWidth: "5.5em" }}>
        {reading === null ? say`no reading` : reading.stable ? say`● steady` : say`○ settling`}
      </Box>
      {onTake && (
        <Button
          size="small"
          variant="contained"
          disabled={!reading?.stable}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => reading && onTake(reading.text)}
        >
          {say`Take reading`}
        </Button>
      )}
      <Controls instrument={instrument} loadG={loadG ?? 10} />
      <Button size="small" sx={{ ml: "auto" }} onClick={() => disconnectInstrument(role)}>
        {say`Disconnect`}
      </Button>
      {message !== "" && (
        <Box role="alert" sx={{ color: colors.brick, fontWeight: 600, width: 1 }}>
          {say(message)}
        </Box>
      )}
    </Box>
  );
}

interface ConnectButtonProps {
  readonly message: Phrase;
  readonly state: "off" | "connecting" | "failed";
  readonly role: Role;
}

function ConnectButton({ message, state, role }: ConnectButtonProps) {
  const say = useSay();
  return (
    <Box sx={{ display: "flex", alignItems: "center", flexWrap: "wrap", gap: 1 }}>
      {message !== "" && (
        <Box role="alert" sx={{ color: colors.brick, fontWeight: 600, width: 1 }}>
          {say(message)}
        </Box>
      )}
      <Button
        size="small"
        variant="outlined"
        disabled={state === "connecting"}
        onClick={() => void connectInstrument(role)}
      >
        {state === "failed" ? say`Connect again` : say`Connect the ${uncapitalized(names[role])}`}
      </Button>
    </Box>
  );
}

/** What can be done to a simulated instrument by hand. */
function Controls({ instrument: { acts, reading }, loadG }: { instrument: InstrumentState; loadG: number }) {
  const say = useSay();
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
        {button(say`Put it on`, () => balance.load(loadG))}
        {button(say`Take it off the burette`, () => balance.load(0))}
        {button(say`Tare`, () => balance.tare())}
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
        {button(running ? say`Close the tap` : say`Open the tap`, turn)}
        {button(say`One drop`, () => burette.drop())}
        {button(say`Fill up`, () => {
          burette.refill();
          setRunning(false);
        })}
        <Box sx={{ color: colors.inkSoft }}>{reading === null ? "" : say`${burette.drops()} drops`}</Box>
      </>
    );
  }
  return thermometer ? button(say`Heat it again`, () => thermometer.heat(85)) : null;
}
