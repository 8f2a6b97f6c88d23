import { createQuery } from '@tanstack/svelte-query';
import { api, ask } from '../api/client';

const EVERY = 60_000;

const CHANGES = /^\/api\/(tasks|sign-offs|slips|notices|clock|bulk|imports|records\/[^/]+(\/\d+.*)?$|rules\/\d+\/run$)/;

/** Whether something sent there can change what waits for somebody; most of what is sent while they type only asks. */
export function mayChangeWaiting(path: string): boolean {
    return CHANGES.test(path);
}

/** How much waits for whoever is signed in, as the places and the bell show it; what they do counts at once. */
export function waiting() {
    return createQuery(() => ({ queryKey: ['waiting'], queryFn: () => ask(api.GET('/api/waiting')), refetchInterval: EVERY }));
}
