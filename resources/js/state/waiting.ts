import { createQuery } from '@tanstack/svelte-query';
import { api, ask } from '../api/client';

const EVERY = 60_000;

/** How much waits for whoever is signed in: tasks, sign-offs and slips. */
export function waiting() {
    const tasks = createQuery(() => ({
        queryKey: ['tasks', 'count'],
        queryFn: () => ask(api.GET('/api/tasks', { params: { query: { whose: 'mine', limit: 1 } } })),
        refetchInterval: EVERY,
    }));
    const signOffs = createQuery(() => ({
        queryKey: ['sign-offs', 'count'],
        queryFn: () => ask(api.GET('/api/sign-offs', { params: { query: { limit: 1 } } })),
        refetchInterval: EVERY,
    }));
    const slips = createQuery(() => ({
        queryKey: ['slips', 'count'],
        queryFn: () => ask(api.GET('/api/slips', { params: { query: { box: 'mine', limit: 1 } } })),
        refetchInterval: EVERY,
    }));
    return { tasks, signOffs, slips };
}
