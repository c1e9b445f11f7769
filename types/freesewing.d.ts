/** An open table of body measurements by size; the package ships no types. Lengths in mm. */
declare module '@freesewing/models' {
  type Measurements = Record<string, number>
  export const adult: { cisFemale: Record<string, Measurements>; cisMale: Record<string, Measurements> }
}
