/** Normal distribution function. Source: Abramowitz and Stegun, Handbook of Mathematical Functions, 7.1.26; error below 2e-7. */
export function normalCdf(z: number): number {
  if (z > 8) return 1;
  if (z < -8) return 0;
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const erf =
    1 -
    ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.exp(-x * x);
  return z >= 0 ? 0.5 * (1 + erf) : 0.5 * (1 - erf);
}

/** The z below which a share p (0..1) of a standard normal lies, to 1e-9, within eight sigmas: by halving. */
export function normalQuantile(p: number): number {
  let [low, high] = [-8, 8];
  while (high - low > 1e-9) {
    const middle = (low + high) / 2;
    if (normalCdf(middle) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
