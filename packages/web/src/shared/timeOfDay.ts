const clock = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit', hour12: false });
const dated = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short' });

const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

/** A day with its year: 20 Nov 2026. @param at ISO 8601 */
export const daySaid = (at: string): string => day.format(new Date(at));

/** Hours and minutes on the painter's clock: 14:05. @param at ms since 1970 */
export const timeOfDay = (at: number): string => clock.format(at);

/** The same with its day, where that is not today: Thu 26 Nov, 15:02. @param now ms since 1970 */
export function timeSaid(at: number, now: number): string {
  const sameDay = new Date(at).toDateString() === new Date(now).toDateString();
  return sameDay ? timeOfDay(at) : `${dated.format(at)}, ${timeOfDay(at)}`;
}

/** A span as it is said: 14 min, 3 h 20 min, 2 days. */
export function sayMinutes(minutes: number): string {
  const whole = Math.max(0, Math.ceil(minutes - 1e-9));
  if (whole < 100) return `${whole} min`;
  if (whole < 48 * 60) return whole % 60 ? `${Math.floor(whole / 60)} h ${whole % 60} min` : `${whole / 60} h`;
  return `${Math.round(whole / 1440)} days`;
}
