/** Format of plans and job files that this program writes; earlier ones are brought up to it when they are read. */
export const FORMAT = 2;
