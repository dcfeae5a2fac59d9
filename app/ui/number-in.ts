import { withPoint } from "~/core/text";

/** A number above or at zero as people type it, comma or point; null where the text is none. */
export const numberIn = (text: string | undefined): number | null => {
  const plain = withPoint(text ?? "");
  return /^\d*\.?\d+(e-?\d+)?$/i.test(plain) ? Number(plain) : null;
};
