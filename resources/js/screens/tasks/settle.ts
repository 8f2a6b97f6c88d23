import type { QueryClient } from '@tanstack/svelte-query';
import { api, ask, said, type Resources } from '../../api/client';
import { toasts } from '../../state/toasts.svelte';

type Task = Pick<Resources['TaskResource'], 'id' | 'title'>;

/** What shows tasks, or what follows from them, is read again. */
export function refreshTasks(client: QueryClient): void {
    for (const key of ['tasks', 'today', 'account', 'ledger', 'lines']) void client.invalidateQueries({ queryKey: [key] });
}

/** A task is done, with what came of it, or open again; the other can be had back at once. */
export async function settle(client: QueryClient, task: Task, done: boolean, came = ''): Promise<void> {
    const params = { path: { id: task.id } };
    try {
        await ask(
            done
                ? api.POST('/api/tasks/{id}/complete', { params, body: { outcome: came } })
                : api.POST('/api/tasks/{id}/reopen', { params }),
        );
        if (done) toasts.tell(`“${task.title}” is done.`, { label: 'Undo', run: () => void settle(client, task, false) });
        else toasts.tell(`“${task.title}” is open again.`);
    } catch (thrown) {
        toasts.complain(said(thrown));
    }
    refreshTasks(client);
}
