declare module "jstat" {
  const jStat: {
    studentt: { inv: (probability: number, degreesOfFreedom: number) => number };
    centralF: { cdf: (f: number, df1: number, df2: number) => number };
    models: {
      ols: (
        y: readonly number[],
        rows: readonly (readonly number[])[],
      ) => { coef: number[]; R2: number; t: { t: number[] } };
    };
  };
  export default jStat;
}
