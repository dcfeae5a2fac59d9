import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { useSearchParams } from "react-router";
import { Page } from "../../ui/page";
import { AddForm } from "./add-form";
import { DiluteForm } from "./dilute-form";
import type { NewBottleProps } from "./parts";
import { SeriesForm } from "./series-form";
import { WeighForm } from "./weigh-form";
import { useSay } from "../../words/text";
import { msg } from "~/core/text";

const ways = [
  { key: "weigh", label: msg`Weigh a solid` },
  { key: "dilute", label: msg`Dilute a stock` },
  { key: "series", label: msg`Series of standards` },
  { key: "add", label: msg`Bottle with a label` },
] as const;

/** A new bottle: made by weighing or by dilution, in a series, or bought. */
export function NewBottlePage(props: NewBottleProps) {
  const say = useSay();
  const [search, setSearch] = useSearchParams();
  const way = ways.find(({ key }) => key === search.get("as"))?.key ?? "weigh";
  return (
    <Page
      title={say`New bottle`}
      note={say`Type what you want to see the plan. Then type what you did; that is what counts.`}
      width={1180}
    >
      <ToggleButtonGroup
        exclusive
        value={way}
        onChange={(_, chosen: string | null) =>
          chosen && setSearch({ as: chosen }, { replace: true, preventScrollReset: true })
        }
        aria-label={say`How it comes to the shelf`}
        sx={{ mb: 2, flexWrap: "wrap" }}
      >
        {ways.map(({ key, label }) => (
          <ToggleButton key={key} value={key}>
            {say(label)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {way === "weigh" && <WeighForm {...props} />}
      {way === "dilute" && <DiluteForm {...props} />}
      {way === "series" && <SeriesForm {...props} />}
      {way === "add" && <AddForm {...props} />}
    </Page>
  );
}
