import { equationMhchem } from "~/core/chemistry";

/** The two sides of an equation as TeX, the arrow with the first: it breaks there where the line is too short. */
export function equationSides(source: string): string[] {
  const whole = equationMhchem(source);
  const [left, right] = whole.replace(/^\\ce\{|\}$/g, "").split(" -> ");
  return left !== undefined && right !== undefined ? [`\\ce{${left} ->}`, `\\ce{${right}}`] : [whole];
}
