let files: File[] = [];

/** Files chosen where there is no job yet: the job that is opened next takes them in. */
export const bringAlong = (chosen: File[]): void => void (files = chosen);

/** The files that were brought along, once. */
export function takeBrought(): File[] {
  const brought = files;
  files = [];
  return brought;
}
