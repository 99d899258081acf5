/** What a sentence may take in: a figure or a name, as the core said it. */
export type Shown = string | number;
