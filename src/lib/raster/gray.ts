/** How bright a picture is, a byte a dot from black to white, rows from the head down. */
export interface Gray {
  width: number;
  height: number;
  light: Uint8Array;
}
