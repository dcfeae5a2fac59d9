import { CalculatePage } from "../features/calculate/calculate-page";
import type { Route } from "./+types/calculate";
import { msg } from "~/core/text";
import { pageTitle } from "../words/page-title";

export const meta: Route.MetaFunction = ({ matches }) => pageTitle(matches, msg`Calculate`);

export default function Calculate() {
  return <CalculatePage />;
}
