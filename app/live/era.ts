/*
 * Which lab this page shows. A lab that was exchanged for a backup keeps another journal from then on, and every answer of the server
 * names the one that it keeps: a page of the lab before is loaded anew.
 */

/** The header of every answer. */
export const eraHeader = "X-Lab";

let own: string | null = null;

/** What the page was made for. */
export const setEra = (era: string | null): void => {
  own = era;
};
export const eraOfPage = (): string | null => own;

/** True for an answer of the same lab; loads the page anew where another one answers. What is being typed is kept in the browser. */
export function sameEra(response: Response): boolean {
  const named = response.headers.get(eraHeader);
  if (own === null || !named || named === own) return true;
  window.location.reload();
  return false;
}
