const format = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit', hour12: false });

/** Hours and minutes on the painter's clock: 14:05. @param at ms since 1970 */
export const timeOfDay = (at: number): string => format.format(at);
