import { inboxApi } from '@steady-gleam/contracts';
import { basename } from 'node:path';
import type { Route } from '../../http/route';
import type { Inbox } from '../../inbox/watch';
import type { Repos } from '../repos';

/** The watched folder's files. @param inbox undefined where none is watched */
export function routeInbox(
  route: Route,
  { inbox: files }: Pick<Repos, 'inbox'>,
  inbox: Inbox | undefined,
  isShop: boolean,
): void {
  route(inboxApi.list, async () => ({
    ...(await files.offered()),
    // Where it stands on the machine is nobody's business on the network.
    folder: inbox ? (isShop ? basename(inbox.folder) : inbox.folder) : null,
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
