/** Node.js flags of fenced processes: a bounded young generation keeps peak memory near what is held. */
export const FENCED_FLAGS = ['--max-semi-space-size=8'];
