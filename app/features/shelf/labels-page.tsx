import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import dayjs from "dayjs";
import qrcode from "qrcode-generator";
import { useState } from "react";
import { Link } from "react-router";
import { prettyFormula } from "~/core/chemistry";
import { concentrationOf } from "~/protocol/concentration";
import type { SolutionView } from "~/protocol/shelf";
import { fonts } from "../../theme/theme";
import { noPrint, Page } from "../../ui/page";
import { useSay } from "../../words/text";
import { msg, unitText } from "~/core/text";

/** Sizes in mm on a sheet of 210 x 297 mm, edge to edge within a margin of 8 mm. */
const sizes = [
  {
    key: "small",
    label: msg`small, 21 on a sheet (64 x 38 mm)`,
    width: 64,
    height: 38,
    columns: 3,
    font: 2.7,
    qr: 14,
  },
  {
    key: "medium",
    label: msg`medium, 10 on a sheet (96 x 55 mm)`,
    width: 96,
    height: 55,
    columns: 2,
    font: 3.7,
    qr: 21,
  },
  {
    key: "large",
    label: msg`large, 6 on a sheet (96 x 92 mm)`,
    width: 96,
    height: 92,
    columns: 2,
    font: 4.6,
    qr: 32,
  },
] as const;
type Size = (typeof sizes)[number];

/** Labels for bottles, to scale, to be printed on a sheet. */
export function LabelsPage({ bottles }: { bottles: readonly SolutionView[] }) {
  const say = useSay();
  const [key, setKey] = useState<Size["key"]>("medium");
  const [copies, setCopies] = useState("1");
  const size = sizes.find((s) => s.key === key) ?? sizes[1];
  const each = Math.min(50, Math.max(1, Math.floor(Number(copies) || 1)));
  return (
    <Page
      title={
        <Box component="span" sx={noPrint}>
          {say`Labels`}
        </Box>
      }
      note={
        <Box component="span" sx={noPrint}>
          {say`Print at 100 %. What is on the screen is to scale.`}
        </Box>
      }
      actions={
        <>
          <Button variant="contained" onClick={() => window.print()}>
            {say`Print`}
          </Button>
          <Button component={Link} to="/shelf" variant="outlined">
            {say`Back to the shelf`}
          </Button>
        </>
      }
    >
      <Box sx={{ display: "flex", gap: 2, mb: 2, maxWidth: 620, ...noPrint }}>
        <TextField
          select
          label={say`Size`}
          value={key}
          onChange={(e) => setKey(e.target.value as Size["key"])}
        >
          {sizes.map((s) => (
            <MenuItem key={s.key} value={s.key}>
              {say(s.label)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label={say`Of each`}
          value={copies}
          onChange={(e) => setCopies(e.target.value)}
          sx={{ maxWidth: 120 }}
        />
      </Box>
      {bottles.length === 0 && (
        <Typography>{say`There is no bottle to label: choose some on the shelf.`}</Typography>
      )}
      <Box className="label-sheet" sx={sheetOf(size)}>
        {bottles.flatMap((bottle) =>
          Array.from({ length: each }, (_, i) => (
            <Label key={`${bottle.id} ${i}`} bottle={bottle} size={size} />
          )),
        )}
      </Box>
    </Page>
  );
}

/** The page of labels, in columns of one size. */
const sheetOf = (size: Size) =>
  ({
    display: "grid",
    gap: "1mm",
    gridTemplateColumns: {
      xs: `minmax(0, ${size.width}mm)`,
      sm: `repeat(${size.columns}, ${size.width}mm)`,
    },
    justifyContent: "start",
    "@media print": { gridTemplateColumns: `repeat(${size.columns}, ${size.width}mm)` },
  }) as const;

function Label({ bottle, size }: { bottle: SolutionView; size: Size }) {
  const say = useSay();
  const { code, name, formula, current, madeAt, madeBy, restandardizeBy, hazards } = bottle;
  const shown = current && concentrationOf(current);
  const { font } = size;
  return (
    <Box
      role="group"
      aria-label={say`Label ${code}`}
      sx={{
        width: `${size.width}mm`,
        maxWidth: 1,
        height: `${size.height}mm`,
        overflow: "hidden",
        bgcolor: "#fff",
        color: "#000",
        border: "0.3mm solid #000",
        borderRadius: "1.5mm",
        p: "2mm",
        display: "grid",
        gridTemplateRows: "auto 1fr auto",
        fontSize: `${font}mm`,
        lineHeight: 1.2,
        breakInside: "avoid",
      }}
    >
      <Box sx={{ fontWeight: 700, fontSize: `${font * 1.18}mm`, maxHeight: "2.4em", overflow: "hidden" }}>
        {name}
        <Box component="span" sx={{ fontWeight: 400, ml: 0.75 }}>
          {prettyFormula(formula)}
        </Box>
      </Box>
      <Box sx={{ display: "flex", justifyContent: "space-between", gap: "2mm", minHeight: 0 }}>
        <Box sx={{ minWidth: 0, alignSelf: "center" }}>
          <Box
            sx={{ fontFamily: fonts.reading, fontSize: `${font * 1.55}mm`, fontWeight: 600, lineHeight: 1.1 }}
          >
            {shown ? shown.value : say`not known yet`}
          </Box>
          {shown && (
            <Box sx={{ fontFamily: fonts.reading }}>
              {shown.plusMinus && `± ${shown.plusMinus} `}
              {say(unitText(shown.unit))}
              {bottle.form === "solid" && say` purity`}
              {shown.meaning === "k = 2" && " (k = 2)"}
            </Box>
          )}
          {hazards && <Box sx={{ fontWeight: 700, mt: "0.8mm" }}>{hazards}</Box>}
        </Box>
        <Box sx={{ flex: "none", textAlign: "center" }}>
          <QrCode text={qrText(bottle)} mm={size.qr} />
          <Box sx={{ fontFamily: fonts.reading, fontWeight: 600 }}>{code}</Box>
        </Box>
      </Box>
      <Box sx={{ borderTop: "0.2mm solid #000", pt: "0.8mm", fontSize: `${font * 0.9}mm` }}>
        {say`made ${dayjs(madeAt).format("YYYY-MM-DD")} ${madeBy && say`by ${madeBy}`}`}
        {restandardizeBy && <Box component="span">{say`; restandardize by ${restandardizeBy}`}</Box>}
      </Box>
    </Box>
  );
}

/** Content of the code: what the label says, so that it can be read without this program. */
const qrText = ({ code, name, current, madeAt }: SolutionView): string =>
  [code, name, current ? `${current.value} ${current.unit}` : "", dayjs(madeAt).format("YYYY-MM-DD")]
    .filter(Boolean)
    .join("; ");

function QrCode({ text, mm }: { text: string; mm: number }) {
  const say = useSay();
  const code = qrcode(0, "M");
  code.addData(text);
  code.make();
  const n = code.getModuleCount();
  const path: string[] = [];
  for (let row = 0; row < n; row++) {
    for (let column = 0; column < n; column++)
      if (code.isDark(row, column)) path.push(`M${column} ${row}h1v1h-1z`);
  }
  return (
    <svg
      viewBox={`-2 -2 ${n + 4} ${n + 4}`}
      style={{ width: `${mm}mm`, height: `${mm}mm`, display: "block" }}
      role="img"
      aria-label={say`QR code: ${text}`}
      shapeRendering="crispEdges"
    >
      <path d={path.join("")} fill="#000" />
    </svg>
  );
}
