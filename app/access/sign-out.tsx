import Box from "@mui/material/Box";
import { useState } from "react";
import { useSay } from "../words/text";

/** What the service worker keeps of pages: the next person at this browser must not find them. */
const forgetPages = async () => {
  if (!("caches" in window)) return;
  await Promise.all(["pages", "data"].map((name) => caches.delete(name)));
};

/** Ends the session of this browser. Readings that wait here to be sent stay, and are sent by whoever signs in next. */
export function SignOut() {
  const say = useSay();
  const [leaving, setLeaving] = useState(false);
  return (
    <Box
      component="form"
      method="post"
      action="/sign-out"
      sx={{ display: "flex", alignSelf: "stretch" }}
      onSubmit={(event) => {
        if (leaving) return;
        event.preventDefault();
        const form = event.currentTarget;
        setLeaving(true);
        void forgetPages().finally(() => form.submit());
      }}
    >
      <Box component="button" type="submit" sx={buttonStyle}>
        {say`Sign out`}
      </Box>
    </Box>
  );
}

const buttonStyle = {
  bgcolor: "transparent",
  color: "#c3cccb",
  border: 0,
  px: 0.5,
  minWidth: 44,
  font: "inherit",
  whiteSpace: "nowrap",
  cursor: "pointer",
  "&:hover": { color: "#fff" },
  "&:focus-visible": { outlineColor: "#fff", outlineOffset: -4 },
} as const;
