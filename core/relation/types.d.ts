declare module "fast-formula-parser" {
  export default class FormulaParser {
    constructor(options: { onCell: (ref: { row: number; col: number }) => unknown });
    parse(formula: string, position: { sheet: string; row: number; col: number }): unknown;
  }
}
