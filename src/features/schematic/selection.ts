/** What is picked on a drawing: a part, or nets. */
export interface Selection {
  readonly part?: string | undefined;
  readonly nets?: readonly string[] | undefined;
}
