/** Node.js flags of the process that writes outputs: a small young generation keeps its peak memory near what it holds. */
export const WRITER_FLAGS = ['--max-semi-space-size=4'];
