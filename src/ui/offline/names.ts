/** Page that stands in for every other one while the server is not reached. */
export const SHELL_PATH = "/shell";
/** What the browser is asked to do once a network is there. */
export const SYNC_TAG = "plumb-outbox";
