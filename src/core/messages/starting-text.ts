import type { Template } from "./templates";

/** A text of an occasion for each of its channels, as a business starts with it. */
export interface StartingText {
  mail?: Template;
  text?: string;
  voice?: string;
}
