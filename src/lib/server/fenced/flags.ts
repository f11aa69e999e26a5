/** A bounded young generation keeps peak memory near what is held. The heap is gone through when it has three times what it held, which few tasks reach. */
const HEAP = ['--max-semi-space-size=4', '--heap-growing-percent=300'];

/**
 * Node.js flags of fenced processes. What they leave behind goes when a task is done, and nobody waits. One helper
 * thread of the engine does no less than the four that it starts by itself, and leaves the other cores to other processes.
 */
export const FENCED_FLAGS = [...HEAP, '--v8-pool-size=1', '--expose-gc'];

/**
 * The same for processes that go on with many tasks in a row: such work is shared out among
 * workers, as many as there are cores, and threads that help one of them only take from the others. One file takes up to a
 * third longer, two workers on two cores get a tenth to a fifth more done. Compiling stands in the way of the work itself then,
 * so code is looked at for it less often than by default: the first hundred files take a tenth less.
 */
export const ROW_FLAGS = [...HEAP, '--single-threaded', '--interrupt-budget=600000'];
