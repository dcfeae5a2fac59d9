import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { lineReader } from "~/devices";
import { pageMargins } from "../../ui/page";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { disconnectInstrument } from "./connections";
import { InstrumentDisplay } from "./display";
import {
  type InstrumentChoice,
  type PhotometerChoice,
  type Role,
  roles,
  roleUnits,
  useInstrumentSettings,
  writeSettings,
} from "./settings";
import { useSay } from "../../words/text";
import { msg, type Phrase } from "~/core/text";

const about: Record<Role, { title: Phrase; gives: Phrase; example: string }> = {
  balance: { title: msg`Balance`, gives: msg`Masses, in g.`, example: "S   10.2345 g" },
  burette: { title: msg`Burette`, gives: msg`Readings, in mL, and drops.`, example: "VOL 24.35 mL" },
  thermometer: { title: msg`Thermometer`, gives: msg`Of the flask, in °C.`, example: "61.2 C" },
};

/** The instruments beside this device: which are read by themselves, and how. */
export function InstrumentsPage() {
  const say = useSay();
  const settings = useInstrumentSettings();
  const change = (role: Role, choice: Partial<InstrumentChoice>) => {
    // What was connected by the old choice is not what was chosen.
    disconnectInstrument(role);
    writeSettings({ ...settings, [role]: { ...settings[role], ...choice } });
  };
  return (
    <Box component="main" sx={pageMargins}>
      <Typography variant="h1">{say`Instruments`}</Typography>
      <Typography color="textSecondary" sx={{ mb: 2 }}>
        {say`Instruments connected to this device. In a run, “Take reading” puts a steady value into the field and marks it as read by instrument.`}
      </Typography>
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "minmax(0,1fr)", md: "1fr 1fr" } }}>
        {roles.map((role) => (
          <InstrumentSheet key={role} role={role} choice={settings[role]} onChange={(c) => change(role, c)} />
        ))}
        <PhotometerSheet
          choice={settings.photometer}
          onChange={(photometer) => writeSettings({ ...settings, photometer })}
        />
      </Box>
    </Box>
  );
}

interface InstrumentSheetProps {
  role: Role;
  choice: InstrumentChoice;
  onChange: (choice: Partial<InstrumentChoice>) => void;
}

function InstrumentSheet({ role, choice, onChange }: InstrumentSheetProps) {
  const say = useSay();
  const { title, gives: gives, example } = about[role];
  return (
    <Sheet
      component="section"
      aria-labelledby={`${role}-title`}
      sx={{ display: "grid", gap: 1.5, alignContent: "start" }}
    >
      <Box>
        <Typography id={`${role}-title`} variant="h2">
          {say(title)}
        </Typography>
        <Typography variant="body2" color="textSecondary">
          {say(gives)}
        </Typography>
      </Box>
      <Pick
        id={`${role}-source`}
        label={say`${title} is read`}
        value={choice.source}
        choices={[
          ["none", say`read by eye, typed in`],
          ["simulated", say`simulated`],
          ["serial", say`over the serial port`],
        ]}
        onChange={(source) => onChange({ source: source as InstrumentChoice["source"] })}
      />
      {choice.source === "simulated" && (
        <Pick
          id={`${role}-fault`}
          label={say`It behaves`}
          value={choice.fault}
          choices={[
            ["none", "well"],
            ["garbage", say`sends garbage after half a minute`],
            ["freeze", say`freezes after half a minute`],
            ["unplug", say`loses its cable after half a minute`],
          ]}
          onChange={(fault) => onChange({ fault: fault as InstrumentChoice["fault"] })}
        />
      )}
      {choice.source === "serial" && (
        <SerialFields role={role} choice={choice} example={example} onChange={onChange} />
      )}
      {choice.source !== "none" && <InstrumentDisplay role={role} />}
    </Sheet>
  );
}

/** How a line of a real instrument is read, tried on an example at each key. */
function SerialFields({ role, choice, example, onChange }: InstrumentSheetProps & { example: string }) {
  const say = useSay();
  const reader = lineReader({ line: choice.line, unit: roleUnits[role] });
  const tried = reader.ok ? reader.value(example) : null;
  const shown = !reader.ok
    ? reader.problem.message
    : tried
      ? say`“${example}” is read as ${tried.value} ${roleUnits[role]}${tried.stable ? say`, steady` : ""}.`
      : say`“${example}” does not match this pattern; your instrument’s lines may.`;
  return (
    <>
      <TextField
        id={`${role}-line`}
        label={say`A line as it sends it`}
        value={choice.line}
        onChange={(event) => onChange({ line: event.target.value })}
        error={!reader.ok}
        helperText={say(shown)}
        slotProps={{ htmlInput: { style: { fontFamily: fonts.reading }, spellCheck: false } }}
      />
      <Typography variant="body2" sx={{ color: colors.inkSoft }}>
        {say`${"{value}"} stands for the number, ${"{any}"} for any text, ${"{stable:S}"} for a mark shown only while the reading is steady. Without it, three equal lines count as steady.`}
      </Typography>
      <Pick
        id={`${role}-baud`}
        label={say`Speed, baud`}
        value={String(choice.baudRate)}
        choices={[1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 115_200].map((b) => [String(b), String(b)])}
        onChange={(baud) => onChange({ baudRate: Number(baud) })}
      />
    </>
  );
}

function PhotometerSheet(props: { choice: PhotometerChoice; onChange: (choice: PhotometerChoice) => void }) {
  const say = useSay();
  const { choice, onChange } = props;
  return (
    <Sheet
      component="section"
      aria-labelledby="photometer-title"
      sx={{ display: "grid", gap: 1.5, alignContent: "start" }}
    >
      <Box>
        <Typography id="photometer-title" variant="h2">
          {say`Photometer`}
        </Typography>
        <Typography variant="body2" color="textSecondary">
          {say`Absorbance. Connect it where cuvettes are read.`}
        </Typography>
      </Box>
      <Pick
        id="photometer-kind"
        label={say`Simulated photometer: wavelengths`}
        value={choice.kind}
        choices={[
          ["continuous", say`any wavelength, 190 to 1100 nm`],
          ["filters", say`filters of 420, 470, 510, 560, 620 and 690 nm`],
        ]}
        onChange={(kind) => onChange({ ...choice, kind: kind as PhotometerChoice["kind"] })}
      />
      <Pick
        id="photometer-warm"
        label={say`Simulated photometer: lamp`}
        value={choice.warmUp}
        choices={[
          ["warm", say`warmed up`],
          ["cold", say`cold: drifts for some minutes`],
        ]}
        onChange={(warmUp) => onChange({ ...choice, warmUp: warmUp as PhotometerChoice["warmUp"] })}
      />
    </Sheet>
  );
}

interface PickProps {
  id: string;
  label: string;
  value: string;
  choices: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
}

const Pick = ({ id, label, value, choices, onChange }: PickProps) => (
  <TextField
    select
    id={id}
    label={label}
    value={value}
    onChange={(event) => onChange(event.target.value)}
    slotProps={{ htmlInput: { "aria-label": label } }}
  >
    {choices.map(([choice, words]) => (
      <MenuItem key={choice} value={choice}>
        {words}
      </MenuItem>
    ))}
  </TextField>
);
