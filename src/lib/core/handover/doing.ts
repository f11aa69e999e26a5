/** What is being done with an output: its files are written; sheets are folded and trimmed to prove them; files are read again. */
export type Doing = 'writing' | 'proving' | 'checking';
/** Hears how much is done of how much, and with what; whoever says it waits for nothing. */
export type OnDoing = (done: number, total: number, doing?: Doing) => void;
