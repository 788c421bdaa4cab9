import { inboxApi } from '@steady-gleam/contracts';
import type { Route } from '../../http/route';
import type { Inbox } from '../../inbox/watch';
import type { Repos } from '../repos';

/** The watched folder's files. @param inbox left out where none is watched */
export function routeInbox(route: Route, { inbox: files }: Pick<Repos, 'inbox'>, inbox?: Inbox): void {
  route(inboxApi.list, async () => ({
    ...(await files.offered()),
    folder: inbox?.folder ?? null,
    watched: inbox !== undefined,
    fault: inbox?.fault() ?? '',
    unfinished: (inbox?.unfinished() ?? []).map((u) => ({ ...u })),
  }));
  route(inboxApi.read, (_, id) => files.read(id));
  route(inboxApi.put, async ({ state }, id) => {
    await files.put(id, state);
    return {};
  });
}
