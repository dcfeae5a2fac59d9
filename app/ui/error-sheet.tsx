import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import { Sheet } from "./sheet";
import { useSay } from "../words/text";

/** A page with nothing but what went wrong and the way back. */
export function ErrorSheet({ title, message }: { title: string; message: string }) {
  const say = useSay();
  return (
    <Box component="main" sx={{ maxWidth: 560, mx: "auto", px: 2, py: 6 }}>
      <title>{say`${title} · Steady Bead`}</title>
      <Sheet sx={{ p: 4 }}>
        <svg width="44" height="64" viewBox="0 0 44 64" aria-hidden="true">
          <path d="M16 2h12v22l3 9H13l3-9z" fill="#fff" stroke="#56625f" strokeWidth="2" />
          <path
            d="M22 40c5 7 8 10 8 14a8 8 0 1 1-16 0c0-4 3-7 8-14z"
            fill="#eab9d0"
            stroke="#9c2a5e"
            strokeWidth="2"
          />
        </svg>
        <Typography variant="h1" sx={{ mt: 2, mb: 1 }}>
          {title}
        </Typography>
        <Typography sx={{ mb: 3 }}>{message}</Typography>
        <Button component={Link} to="/" variant="contained">
          {say`Back to the bench`}
        </Button>
      </Sheet>
    </Box>
  );
}
