/** Height of a job's header and of the name above the rail, px. */
export const HEADER = 78;
