/** A share in percent: small ones with one place, and none of them as nothing unless it is. */
export function inPercent(share: number) {
  const percent = 100 * share;
  if (percent === 0) return '0';
  if (percent < 0.05) return '< 0.1';
  if (percent >= 99.5 && percent < 100) return '> 99';
  return percent.toFixed(percent < 9.95 ? 1 : 0);
}
