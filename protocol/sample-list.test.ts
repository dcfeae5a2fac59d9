import { describe, expect, test } from "@jest/globals";
import { plain } from "~/core/testing/plain";
import { readSampleList } from "./sample-list";

describe("a pasted list of samples", () => {
  test("cells parted by tabs, semicolons or commas; what each is, with its amount", () => {
    const text =
      "R-9\tbench 1\n\nR-10, bench 2\r\nR-10, bench 2, duplicate\nR-11; AB; spike 0,050\nQC-1,, check, 0.1000\n";
    expect(readSampleList(text)).toEqual({
      problems: [],
      rows: [
        { sample: "R-9", bench: "bench 1", role: "sample", amount: "" },
        { sample: "R-10", bench: "bench 2", role: "sample", amount: "" },
        { sample: "R-10", bench: "bench 2", role: "duplicate", amount: "" },
        { sample: "R-11", bench: "AB", role: "spiked", amount: "0.050" },
        { sample: "QC-1", bench: "", role: "check", amount: "0.1000" },
      ],
    });
  });

  test.each([
    ["R-9, bench 1\nR-9, Bench 1", 2, /^R-9 is in line 1 already: write duplicate/],
    [", bench 1", 1, /no sample is named/],
    ["R-9, bench 1, triplicate", 1, /"triplicate" is not known/],
    ["R-9, bench 1, spike", 1, /say how much was added/],
    ["R-9, bench 1, check", 1, /say what it should be/],
    ["R-9, bench 1, check 1,250", 1, /too many entries: write a number with a point/],
    ["R-9, bench 1, check, 1,250", 1, /too many entries/],
    ["R-9, bench 1, check, 0.1.0", 1, /"0\.1\.0" is not a number/],
    [Array.from({ length: 61 }, (_, i) => `R-${i}`).join("\n"), 61, /at most 60 runs/],
  ])("%j is told by its line", (text, line, message) => {
    const [problem] = readSampleList(text).problems;
    expect(problem?.line).toBe(line);
    expect(plain(problem?.message)).toMatch(message);
  });
});
