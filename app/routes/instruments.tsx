import { InstrumentsPage } from "../features/instruments/instruments-page";
import type { Route } from "./+types/instruments";

export const meta: Route.MetaFunction = () => [{ title: "Instruments · Steady Bead" }];

export default function Instruments() {
  return <InstrumentsPage />;
}
