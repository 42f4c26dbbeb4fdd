export interface Timing {
  readonly name: string;
  readonly runs: number;
  readonly medianMs: number;
  readonly p95Ms: number;
}

/** Times a function: warm-up runs that do not count, then each run alone. Medians, as machines are noisy. */
export function timed(name: string, runs: number, work: () => unknown): Timing {
  for (let n = 0; n < Math.max(20, runs / 5); n += 1) work();
  const times = Array.from({ length: runs }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  }).sort((a, b) => a - b);
  return { name, runs, medianMs: times[Math.floor(runs / 2)]!, p95Ms: times[Math.floor(runs * 0.95)]! };
}

/** A table of timings, each also as a multiple of the first: ratios hold when the machine's speed drifts. */
export function table(timings: readonly Timing[]): string {
  const unit = timings[0]!.medianMs;
  const rows = timings.map(
    (t) => `| ${t.name} | ${t.runs} | ${t.medianMs.toFixed(3)} | ${t.p95Ms.toFixed(3)} | ${(t.medianMs / unit).toFixed(1)} |`,
  );
  return ['| what | runs | median ms | p95 ms | × unit |', '|---|---:|---:|---:|---:|', ...rows].join('\n');
}
