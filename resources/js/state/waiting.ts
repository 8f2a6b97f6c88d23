import { createQuery } from '@tanstack/svelte-query';
import { api, ask } from '../api/client';

const EVERY = 60_000;

/** How much waits for whoever is signed in, as the places and the bell show it; what they do counts at once. */
export function waiting() {
    return createQuery(() => ({ queryKey: ['waiting'], queryFn: () => ask(api.GET('/api/waiting')), refetchInterval: EVERY }));
}
