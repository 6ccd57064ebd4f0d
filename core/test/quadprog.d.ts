declare module 'quadprog' {
  const quadprog: {
    solveQP(D: unknown[][], d: number[], A: unknown[][], b: number[], meq: number): { solution: number[]; message: string }
  }
  export default quadprog
}
