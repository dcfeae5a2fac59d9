import { failure, mustHold, type Result, success } from "../result";
import { conservingNumbers, type Equation, equationText, parseEquation, type Term } from "./equation";
import { type Formula, parseFormula, prettyFormula, speciesKey } from "./formula";
import { greatestCommonDivisor } from "./rational";
import { msg } from "../text";

export type Medium = "acid" | "base";

const formulaOf = (source: string) => mustHold(parseFormula(source));
const electron = formulaOf("e-");
/** What may be added to a half-reaction, on whichever side it is wanted. */
const helpers: Record<Medium, readonly Formula[]> = {
  acid: ["H2O", "H+", "e-"].map(formulaOf),
  base: ["H2O", "OH-", "e-"].map(formulaOf),
};
const same = (a: Formula, b: Formula) => speciesKey(a) === speciesKey(b);

function equationOf(left: readonly Term[], right: readonly Term[]): Equation {
  return { source: equationText({ left, right }), left, right };
}

/**
 * A half-reaction completed from its bare couple (`MnO4- -> Mn^2+`) with water, hydrogen ions (acid) or hydroxide ions
 * (base) and electrons, in smallest whole numbers. Where water leaves it open, as for `H2O2 -> O2`, whose oxygens are
 * what is oxidized, it is done without. Says so when no numbers will do, or when several sets would.
 */
export function completeHalfReaction(source: string, medium: Medium): Result<Equation> {
  const couple = parseEquation(source);
  if (!couple.ok) return couple;
  const completed = completeWith(couple.value, helpers[medium]);
  if (completed.ok) return completed;
  const dry = completeWith(couple.value, helpers[medium].slice(1));
  return dry.ok && electronsTaken(dry.value) !== 0 ? dry : completed;
}

function completeWith({ left, right }: Equation, helping: readonly Formula[]): Result<Equation> {
  const given = [...left, ...right].map(({ formula }) => formula);
  const added = helping.filter((helper) => !given.some((formula) => same(formula, helper)));
  const species = [...given, ...added];
  const found = conservingNumbers(species);
  if (!found.ok) return found;
  const sign = (found.value[0] ?? 0n) < 0n ? -1 : 1;
  const numbers = found.value.map((n) => Number(n) * sign);
  const wrong = given.find((_, i) => (i < left.length ? 1 : -1) * (numbers[i] ?? 0) <= 0);
  if (wrong) {
    return failure(
      msg`It cannot be completed with ${prettyFormula(wrong.source)} on this side: is the couple whole, and the medium right?`,
    );
  }
  const side = (direction: 1 | -1) =>
    species.flatMap((formula, i) => {
      const coefficient = (numbers[i] ?? 0) * direction;
      return coefficient > 0 ? [{ coefficient, formula }] : [];
    });
  return success(equationOf(side(1), side(-1)));
}

/** Electrons of a half-reaction: positive when they are taken up (a reduction), negative when given off. */
export function electronsTaken({ left, right }: Equation): number {
  const count = (terms: readonly Term[]) =>
    terms.reduce((n, t) => n + (same(t.formula, electron) ? t.coefficient : 0), 0);
  return count(left) - count(right);
}

/**
 * Two half-reactions added so that the electrons cancel; whatever else stands on both sides is cancelled too, and the
 * rest brought to smallest whole numbers. Says so unless one takes and the other gives electrons.
 */
export function combineHalfReactions(a: Equation, b: Equation): Result<Equation> {
  const [ea, eb] = [electronsTaken(a), electronsTaken(b)];
  if (ea === 0 || eb === 0) return failure(msg`Each half-reaction must contain electrons`);
  if (ea * eb > 0) {
    const both = ea > 0 ? msg`take up` : msg`give off`;
    return failure(msg`Both half-reactions ${both} electrons: reverse one of them`);
  }
  const [timesA, timesB] = [Math.abs(eb), Math.abs(ea)];
  const sums = new Map<string, Term>();
  const put = (terms: readonly Term[], factor: number) => {
    for (const { coefficient, formula } of terms) {
      const key = speciesKey(formula);
      const before = sums.get(key)?.coefficient ?? 0;
      sums.set(key, {
        formula: sums.get(key)?.formula ?? formula,
        coefficient: before + factor * coefficient,
      });
    }
  };
  put(a.left, timesA);
  put(b.left, timesB);
  put(a.right, -timesA);
  put(b.right, -timesB);
  const terms = [...sums.values()].filter(({ coefficient }) => coefficient !== 0);
  if (terms.length === 0)
    return failure(msg`The two are the same half-reaction and its reverse: they cancel`);
  const divisor = terms.reduce((d, t) => greatestCommonDivisor(d, BigInt(t.coefficient)), 0n);
  const side = (direction: 1 | -1) =>
    terms
      .filter((t) => t.coefficient * direction > 0)
      .map((t) => ({ formula: t.formula, coefficient: (t.coefficient * direction) / Number(divisor) }));
  return success(equationOf(side(1), side(-1)));
}
