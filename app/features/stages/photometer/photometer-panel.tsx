import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { colors, fonts } from "../../../theme/theme";
import type { Photometer } from "./use-photometer";
import { useSay } from "../../../words/text";

interface PhotometerPanelProps {
  photometer: Photometer;
  isBlank: boolean;
  onTake: (shown: string) => void;
}

/** An instrument that reads by itself: its display, whether it stands still, and a button that takes what it shows. */
export function PhotometerPanel({ photometer, isBlank, onTake }: PhotometerPanelProps) {
  const say = useSay();
  const { state, message, reading, connect, disconnect, zero } = photometer;
  if (state !== "on") {
    return (
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, flexWrap: "wrap", color: colors.inkSoft }}>
        {state === "failed" && <Box sx={{ color: colors.brick, width: 1 }}>{say(message)}</Box>}
        <Button size="small" onClick={connect} disabled={state === "connecting"} sx={{ ml: -1 }}>
          {say`Connect the simulated photometer`}
        </Button>
      </Box>
    );
  }
  return (
    <Box
      sx={{
        display: "flex",
        alignItems: "center",
        gap: 1.25,
        flexWrap: "wrap",
        bgcolor: colors.tealWash,
        borderRadius: "10px",
        p: 1,
      }}
    >
      <Box>
        <Box sx={{ fontSize: "0.8rem", color: colors.inkSoft }}>{say`Simulated photometer`}</Box>
        <Box sx={{ fontFamily: fonts.reading, fontSize: "1.35rem" }} data-testid="photometer-display">
          {reading?.text ?? "–.–––"}
        </Box>
      </Box>
      <Box sx={{ color: reading?.stable ? colors.tealDeep : colors.amberDeep, flex: "1 1 60px" }}>
        {reading?.stable ? say`● steady` : say`○ settling`}
      </Box>
      {isBlank && (
        <Button size="small" variant="outlined" onClick={zero}>
          {say`Zero`}
        </Button>
      )}
      <Button
        size="small"
        variant="contained"
        disabled={!reading?.stable}
        onClick={() => reading && onTake(reading.text)}
      >
        {say`Take the reading`}
      </Button>
      <Button size="small" onClick={disconnect}>
        {say`Disconnect`}
      </Button>
    </Box>
  );
}
