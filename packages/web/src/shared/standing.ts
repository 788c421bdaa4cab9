/** How things stand between this device and the server, a line each; nothing where everything is kept and known. */
export function sayStanding(q: {
  readonly isAway: boolean;
  readonly waiting: number;
  readonly setAside: number;
}): readonly string[] {
  return [
    ...(q.isAway ? ['Server away'] : []),
    ...(q.waiting ? [q.isAway ? `Kept here: ${q.waiting}` : `Sending: ${q.waiting}`] : []),
    ...(q.setAside ? [`Refused: ${q.setAside}`] : []),
  ];
}
