/** The text that a run is found by. */
export const searchText = (about: { title: string; sample: string; bench: string }) =>
  `${about.title} ${about.sample} ${about.bench}`.toLowerCase();
