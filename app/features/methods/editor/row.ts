import { type Phrase } from "~/core/text";

/** A row of a table in the editor: texts by column. */
export type Row = Readonly<Record<string, string>>;

export interface Column {
  readonly key: string;
  readonly label: Phrase;
  /** Share of the width. */
  readonly wide?: number;
  readonly choices?: readonly { readonly value: string; readonly label: Phrase }[];
  readonly type?: "text" | "color";
  readonly reading?: boolean;
  readonly placeholder?: string;
}
