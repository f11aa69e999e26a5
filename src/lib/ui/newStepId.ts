let lastStep = 0;
/** An id for a new step, unique in its docket. */
export const newStepId = (): string => `s-${Date.now().toString(36)}${(lastStep++).toString(36)}`;
