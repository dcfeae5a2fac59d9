/** What holds at every bench, whatever is titrated. Common practice, no source. */
export const generalCautions = [
  "Goggles on, hair back, closed shoes, long trousers; gloves as the lab's rule says.",
  "Know where eyewash, shower, fire blanket and the bin for broken glass are.",
  "Fill a burette below eye level, with the tap shut and a waste beaker under it.",
  "Acid into water, never water into acid.",
  "Never return excess to the stock bottle; label every beaker, since most are clear and colorless.",
] as const;

export const comesFirst =
  "Follow the safety data sheets, your institution's rules and local waste law, which come before this text.";
