import Alert from "@mui/material/Alert";
import { storageNoticed, useStorageState } from "./browser-store";
import { useSay } from "../words/text";

/** Tells when this browser cannot keep what is typed, or when someone cleared what it kept. */
export function StorageNotice() {
  const say = useSay();
  const state = useStorageState();
  if (state === "kept") return null;
  return (
    <Alert
      severity="warning"
      sx={{ borderRadius: 0, px: { xs: 2, md: 3 } }}
      {...(state === "cleared" ? { onClose: storageNoticed } : {})}
    >
      {state === "cleared"
        ? say`This browser's storage was cleared. What you were typing on this page was put back.`
        : say`This browser cannot keep drafts: its storage is full or blocked. Keep typing, and save each reading before you close or reload the page.`}
    </Alert>
  );
}
