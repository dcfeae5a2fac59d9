import Typography from "@mui/material/Typography";

/** Whose report it is; nothing where the lab has no header. */
export const Letterhead = ({ text }: { readonly text: string }) =>
  text !== "" && (
    <Typography
      variant="body2"
      color="textSecondary"
      data-testid="letterhead"
      sx={{ whiteSpace: "pre-line", mb: 1 }}
    >
      {text}
    </Typography>
  );
