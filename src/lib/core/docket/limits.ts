/** Largest file that is taken in, in megabytes (MiB). Larger ones are split, or their images made smaller, before they come. */
export const MOST_FILE_MB = 1024;
/** Largest JSON that is read from outside, in bytes: a docket of 5,000 steps has about two million. */
export const MOST_JSON_BYTES = 8 << 20;
/** How deep values may lie in one another in JSON from outside; a docket needs about twelve. */
export const MOST_JSON_DEPTH = 64;
