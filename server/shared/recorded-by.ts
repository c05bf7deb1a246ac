/** Who does something, and when. */
export interface By {
  readonly now: Date;
  readonly byId: string;
}
