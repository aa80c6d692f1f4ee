/** A fault in a document: where, and what is wrong with what would be accepted. */
export type Fault = { readonly path: string; readonly message: string };
