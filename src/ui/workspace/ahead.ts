/** So long after the page has opened the rest of it is fetched, to be there at once and when the server is not. */
export const OTHERS_AFTER_MS = 2500;
