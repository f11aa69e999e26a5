/** The words for one kind of printer's mark. */
export interface MarkWords {
  /** What it is called beside its switch. */
  name: string;
  /** What it is called if there was no room for it. */
  dropped?: string;
}
