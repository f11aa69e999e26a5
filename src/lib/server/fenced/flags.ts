/** A bounded young generation, and a heap that is gone through once it has grown by half as much again as it held, keep peak memory near what is held. */
const HEAP = ['--max-semi-space-size=4', '--heap-growing-percent=150'];

/**
 * Node.js flags of fenced processes. What they leave behind goes as soon as a task is done, when nobody waits. One helper
 * thread of the engine does no less than the four that it starts by itself, and leaves the other cores to other processes.
 */
export const FENCED_FLAGS = [...HEAP, '--v8-pool-size=1', '--expose-gc'];

/**
 * The same for processes that go on with many tasks in a row: such work is shared out among
 * workers, as many as there are cores, and threads that help one of them only take from the others. One file takes up to a
 * third longer, two workers on two cores get a tenth to a fifth more done.
 */
export const ROW_FLAGS = [...HEAP, '--single-threaded'];
