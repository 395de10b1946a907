/**
 * The bench of a firm: tickets and the drawer. It is kept as a job is, so that a window, a device and a server treat it alike (edits, outbox, undo, live);
  * it is
 * there from the first start, is in no list of jobs, and is neither archived nor deleted.
 */
export const BENCH_ID = '00000000-0000-4000-8000-00000be0c400'
export const BENCH_NAME = 'Bench'
