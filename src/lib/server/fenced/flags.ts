/** Node.js flags of fenced processes: a bounded young generation and a heap that grows slowly keep peak memory near what is held. */
export const FENCED_FLAGS = ['--max-semi-space-size=8', '--heap-growing-percent=50'];
