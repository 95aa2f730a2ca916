import { useI18n } from 'vue-i18n';

/** Months that follow one another, each run as its months in order; the year goes round. */
export function runsOfMonths(months: number[]): number[][] {
  const there = new Set(months);
  if (there.size === 12) return [Array.from({ length: 12 }, (_, i) => i + 1)];
  const before = (m: number) => ((m + 10) % 12) + 1;
  return [...there]
    .filter((m) => !there.has(before(m)))
    .sort((a, b) => a - b)
    .map((first) => {
      const run = [first];
      for (let m = (first % 12) + 1; there.has(m); m = (m % 12) + 1) run.push(m);
      return run;
    });
}

/** Months as people say them: "January, May to August", "November to February". */
export function useMonths() {
  const { t } = useI18n();
  const name = (month: number | undefined) => t(`month.${month ?? 1}`);
  return (months: number[]) =>
    runsOfMonths(months)
      .map((run) =>
        run.length > 2 ? t('months.run', { from: name(run[0]), to: name(run.at(-1)) }) : run.map(name).join(', '),
      )
      .join(', ');
}
