/* How a burette is made ready and read, by what is in it. Common practice, no source. */

const rinsed = (titrant: string) =>
  `Rinse the burette with water, then with the ${titrant}. Fill it, clear the tip of bubbles, take the funnel out.`;

/** With a solution that one sees through. */
export const buretteSteps = (titrant: string): string[] => [
  rinsed(titrant),
  "Read at eye level against a white card, the bottom of the meniscus.",
];

export const thiosulfateBurette = buretteSteps("thiosulfate");
export const edtaBurette = buretteSteps("EDTA");

export const permanganateBurette = [
  rinsed("permanganate"),
  "It is too dark to see the bottom: read the top of the meniscus, both times.",
];
export const iodineBurette = [rinsed("iodine"), "Read the top of the meniscus, both times."];
