declare module "newton-raphson-method" {
  /** A zero near a guess by Newton's steps, with a slope by differences of width h; false where they do not come to rest. */
  const newtonRaphson: (
    f: (x: number) => number,
    guess: number,
    options: { tolerance: number; maxIterations: number; h: number },
  ) => number | false;
  export default newtonRaphson;
}
