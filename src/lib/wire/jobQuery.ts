/** What is shown of the jobs. */
export const JOB_SHOWS = ['all', 'stop', 'open', 'fine'] as const;
export type JobShow = (typeof JOB_SHOWS)[number];
/** What stands first in the list of jobs. */
export const JOB_ORDERS = ['changed', 'title', 'pages', 'open'] as const;
export type JobOrder = (typeof JOB_ORDERS)[number];
/** So many jobs come at once: what a screen shows, and the rows behind it. */
export const JOBS_AT_ONCE = 18;

/** Which jobs are asked for. */
export interface JobQuery {
  /** Words that all stand in its title, its kind or its size. */
  search: string;
  show: JobShow;
  order: JobOrder;
}
export const ALL_JOBS: JobQuery = { search: '', show: 'all', order: 'changed' };

const among = <Kind extends string>(kinds: readonly Kind[], given: string | null, other: Kind): Kind =>
  kinds.find((kind) => kind === given) ?? other;

/** The query in an address; what it does not know is as if it was not there. */
export const jobQueryOf = (address: URLSearchParams): JobQuery => ({
  search: address.get('search') ?? ALL_JOBS.search,
  show: among(JOB_SHOWS, address.get('show'), ALL_JOBS.show),
  order: among(JOB_ORDERS, address.get('order'), ALL_JOBS.order),
});

/** The query as it stands in an address, without what goes without saying: `?search=moor`, or nothing. */
export function addressOf(query: JobQuery): string {
  const said = Object.entries(query).filter(([key, value]) => value !== ALL_JOBS[key as keyof JobQuery]);
  return said.length ? `?${new URLSearchParams(said as [string, string][])}` : '';
}
