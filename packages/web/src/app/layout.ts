/** Height of a job's header and of the name above the rail, px. */
export const HEADER = 78;

/** Too narrow for two columns: a tablet held upright, or a laptop whose text is twice as large. */
export const NARROW = '@media (max-width: 860px)';
