import { CalculatePage } from "../features/calculate/calculate-page";
import type { Route } from "./+types/calculate";

export const meta: Route.MetaFunction = () => [{ title: "Calculate · Steady Bead" }];

export default function Calculate() {
  return <CalculatePage />;
}
