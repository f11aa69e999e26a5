/** Values by their keys; of those used last as many as are to be kept. */
export class Latest<Value> {
  private readonly kept = new Map<string, Value>();

  constructor(private readonly most: number) {}

  get(key: string): Value | undefined {
    const value = this.kept.get(key);
    if (value !== undefined) this.set(key, value);
    return value;
  }

  set(key: string, value: Value): void {
    this.kept.delete(key);
    this.kept.set(key, value);
    for (const oldest of this.kept.keys()) {
      if (this.kept.size <= this.most) return;
      this.kept.delete(oldest);
    }
  }

  delete(key: string): void {
    this.kept.delete(key);
  }
}
