import type { QueryClient, QueryKey } from "@tanstack/react-query";

/**
 * Ask anew for everything under a key, after a change.
 *
 * A first answer still on its way was asked before the change: the query library would take it
 * for the new one, so it is given up first.
 */
export async function renew(client: QueryClient, queryKey: QueryKey = []): Promise<void> {
  await client.cancelQueries({ queryKey });
  await client.invalidateQueries({ queryKey });
}

/**
 * Take what the server answered to a change as what it has now.
 *
 * An older answer still on its way would take back what was just done, so it is given up first.
 */
export async function put<T>(client: QueryClient, queryKey: QueryKey, fresh: T): Promise<void> {
  await client.cancelQueries({ queryKey, exact: true });
  client.setQueryData<T>(queryKey, fresh);
}
