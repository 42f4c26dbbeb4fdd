/** Runs jobs one after another, in the order they came; a job that fails does not stop the next.
 *  SQLite has one writer, and this driver has one connection: two open transactions would mix. */
export function inTurn(): <T>(job: () => Promise<T>) => Promise<T> {
  let last: Promise<unknown> = Promise.resolve();
  return (job) => {
    const mine = last.then(job);
    last = mine.catch(() => undefined);
    return mine;
  };
}
