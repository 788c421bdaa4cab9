/** A time zone by its IANA name, as a request carries it; UTC where it says none that is known. */
export function zoneOf(asked: unknown): string {
  if (typeof asked !== 'string' || asked.length > 60) return 'UTC';
  try {
    new Intl.DateTimeFormat('en', { timeZone: asked });
    return asked;
  } catch {
    return 'UTC';
  }
}

/** What a paper says of a moment: the painter's own day and clock, wherever the server stands. */
export interface PaperClock {
  /** 2026-11-27 */
  readonly day: (at: Date) => string;
  /** 14:05 */
  readonly time: (at: Date) => string;
  /** 2026-11-27 14:05 */
  readonly moment: (at: Date) => string;
}

/** @param zone known to {@link zoneOf} */
export function paperClock(zone: string): PaperClock {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  });
  const read = (at: Date) => {
    const of = Object.fromEntries(parts.formatToParts(at).map((p) => [p.type, p.value]));
    return { day: `${of['year']}-${of['month']}-${of['day']}`, time: `${of['hour']}:${of['minute']}` };
  };
  return {
    day: (at) => read(at).day,
    time: (at) => read(at).time,
    moment: (at) => `${read(at).day} ${read(at).time}`,
  };
}
