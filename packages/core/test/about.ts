/** A number that is about another one, as an expectation. */
export const about = (value: number, within = 0.02) => ({
  asymmetricMatch: (other: unknown) => typeof other === 'number' && Math.abs(other - value) <= within,
});
