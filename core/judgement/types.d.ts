declare module "jstat" {
  const jStat: { studentt: { inv: (probability: number, degreesOfFreedom: number) => number } };
  export default jStat;
}
