import { InstrumentsPage } from "../features/instruments/instruments-page";
import type { Route } from "./+types/instruments";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Instruments`);

export default function Instruments() {
  return <InstrumentsPage />;
}
