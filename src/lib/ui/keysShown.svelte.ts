/** Whether the list of keys is shown; every page has it. */
export const keysShown = $state({ on: false });
