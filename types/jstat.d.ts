/** The few functions of jstat that this project calls; the package ships no types. */
declare module 'jstat' {
  const jstat: {
    jStat: {
      binomial: { cdf(k: number, n: number, p: number): number }
      normal: {
        cdf(x: number, mean: number, sd: number): number
        pdf(x: number, mean: number, sd: number): number
        inv(p: number, mean: number, sd: number): number
      }
      percentile(values: number[], k: number): number
    }
  }
  export default jstat
}
