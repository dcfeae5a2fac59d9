import Box from "@mui/material/Box";
import { colors } from "../theme/theme";
import { useSay } from "../words/text";

/** On every screen of a server that others on its network reach: without a sign-in they can do everything. */
export function OpenStrip() {
  const say = useSay();
  return (
    <Box
      role="note"
      sx={{ bgcolor: colors.brick, color: "#fff", px: 2, py: 0.5, textAlign: "center", fontWeight: 600 }}
    >
      {say`Open to this network without a sign-in: everyone who reaches this server can read and change everything.`}
    </Box>
  );
}
