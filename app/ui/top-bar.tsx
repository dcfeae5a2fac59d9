import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import { useEffect, useRef, useState } from "react";
import { NavLink } from "react-router";
import { StayAwake } from "../live/stay-awake";
import { colors } from "../theme/theme";
import { SignOut } from "../access/sign-out";
import { useViewer } from "../access/viewer";
import { useSay } from "../words/text";
import { msg, type Phrase } from "~/core/text";

/** The main places, and who they are for. */
const places: readonly { readonly to: string; readonly label: Phrase; readonly for?: "instructor" }[] = [
  { to: "/", label: msg`Bench` },
  { to: "/shelf", label: msg`Shelf` },
  { to: "/history", label: msg`History` },
  { to: "/methods", label: msg`Methods` },
  { to: "/calculate", label: msg`Calculate` },
  { to: "/house-rules", label: msg`House rules`, for: "instructor" },
  { to: "/instruments", label: msg`Instruments` },
  { to: "/lab", label: msg`Lab`, for: "instructor" },
];

const placesFor = (viewer: ReturnType<typeof useViewer>) =>
  viewer === null
    ? []
    : places.filter((one) => one.for === undefined || one.for === (viewer?.role ?? one.for));

const placeStyle = {
  display: "flex",
  alignItems: "center",
  px: 0.5,
  minWidth: 44,
  flexShrink: 0,
  justifyContent: "center",
  color: "#c3cccb",
  textDecoration: "none",
  whiteSpace: "nowrap",
  borderBottom: "3px solid transparent",
  borderTop: "3px solid transparent",
  "&:hover": { color: "#fff" },
  "&.active": { color: "#fff", borderBottomColor: colors.pink },
  "&:focus-visible": { outlineColor: "#fff", outlineOffset: -4 },
} as const;

/** Whether a row that scrolls sideways goes on beyond its right edge. */
function useGoesOn() {
  const row = useRef<HTMLElement>(null);
  const [goesOn, setGoesOn] = useState(false);
  useEffect(() => {
    const at = row.current;
    if (!at) return;
    const look = () => setGoesOn(at.scrollWidth - at.clientWidth - at.scrollLeft > 4);
    const sizes = new ResizeObserver(look);
    sizes.observe(at);
    at.addEventListener("scroll", look, { passive: true });
    return () => {
      sizes.disconnect();
      at.removeEventListener("scroll", look);
    };
  }, []);
  return { row, goesOn, on: () => row.current?.scrollBy({ left: 160, behavior: "smooth" }) };
}

/** The dark bar on top: the product's name and its main places. */
export function TopBar() {
  const say = useSay();
  const { row, goesOn, on } = useGoesOn();
  const viewer = useViewer();
  return (
    <Box
      component="header"
      sx={{
        bgcolor: colors.ink,
        color: "#fff",
        px: { xs: 1.5, sm: 2.5 },
        position: "relative",
        "@media print": { display: "none" },
      }}
    >
      <Box
        component="nav"
        ref={row}
        aria-label={say`Main`}
        sx={{
          display: "flex",
          alignItems: "stretch",
          gap: { xs: 1.25, sm: 1.5, md: 3 },
          minHeight: 48,
          fontSize: { xs: "0.92rem", sm: "1rem" },
          // On a narrow screen the places may run on beyond its edge, and are drawn along.
          overflowX: { xs: "auto", md: "visible" },
          maxWidth: 1480,
          mx: "auto",
        }}
      >
        <Box
          component="span"
          sx={{
            // On a phone the places need the room.
            display: { xs: viewer === null ? "flex" : "none", sm: "flex" },
            alignItems: "center",
            gap: 1,
            fontWeight: 700,
            whiteSpace: "nowrap",
            mr: 0.5,
          }}
        >
          <Box component="img" src="/bead.svg" alt="" sx={{ width: 26, height: 26 }} />
          {say`Steady Bead`}
        </Box>
        {placesFor(viewer).map(({ to, label }) => (
          <Box key={to} component={NavLink} to={to} end={false} sx={placeStyle}>
            {say(label)}
          </Box>
        ))}
        {viewer !== null && <AtTheEnd signedIn={viewer?.signedIn ?? false} />}
      </Box>
      {goesOn && (
        <ButtonBase aria-label={say`More places`} onClick={on} sx={moreStyle}>
          ›
        </ButtonBase>
      )}
    </Box>
  );
}

/** What stands at the right end of the bar. */
const AtTheEnd = ({ signedIn }: { readonly signedIn: boolean }) => (
  <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, ml: "auto", flexShrink: 0 }}>
    <StayAwake />
    {signedIn && <SignOut />}
  </Box>
);

/** Over the right edge of the bar: there is more. */
const moreStyle = {
  position: "absolute",
  right: 0,
  top: 0,
  bottom: 0,
  width: 56,
  justifyContent: "flex-end",
  pr: 1.5,
  fontSize: "1.6rem",
  color: "#fff",
  background: `linear-gradient(90deg, transparent, ${colors.ink} 55%)`,
} as const;
