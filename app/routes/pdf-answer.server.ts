import type { ReportAsked } from "../features/report/pdf/asked.server";
import { reportBeside } from "../features/report/pdf/beside.server";

/** How an address asks for it: `paper` is A4 or Letter, `working` full or short. */
export const printedAs = (asked: URLSearchParams): Pick<ReportAsked, "paper" | "working"> => ({
  paper: asked.get("paper") === "Letter" ? "Letter" : "A4",
  working: asked.get("working") === "short" ? "short" : "full",
});

/** A PDF as the answer to a request, to be saved under this name. */
export async function pdfAnswer(fileName: string, asked: ReportAsked): Promise<Response> {
  return new Response(await reportBeside(asked), {
    headers: {
      "Content-Type": "application/pdf",
      "Content-Disposition": `attachment; filename="${fileName}"`,
      "Cache-Control": "no-store",
    },
  });
}
