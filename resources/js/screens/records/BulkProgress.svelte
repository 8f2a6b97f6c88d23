<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { Modal } from 'flowbite-svelte';
    import { untrack } from 'svelte';
    import { api, ask, said, type Shapes } from '../../api/client';
    import { countedOf } from '../../state/moments';
    import { toasts } from '../../state/toasts.svelte';

    /* How far work on many records is; it can be stopped, gone on with, and taken back. */
    type Job = Shapes['BulkShape'];
    type Props = { job: Job; type: Shapes['TypeShape']; title: string; onclose: () => void };
    let { job, type, title, onclose }: Props = $props();
    const client = useQueryClient();
    const AT_WORK = ['waiting', 'running', 'undoing'];
    let open = $state(true);
    $effect(() => {
        if (!open) {
            void client.invalidateQueries();
            onclose();
        }
    });
    const id = untrack(() => job.id);
    const now = createQuery(() => ({
        queryKey: ['bulk', id],
        initialData: untrack(() => job),
        queryFn: () => ask(api.GET('/api/bulk/{id}', { params: { path: { id } } })),
        refetchInterval: (query) => (AT_WORK.includes(query.state.data?.status ?? '') ? 500 : false),
    }));
    const isAtWork = $derived(AT_WORK.includes(now.data.status));
    const isUndo = $derived(['undoing', 'undone'].includes(now.data.status));
    const share = $derived(
        isUndo
            ? now.data.undone / Math.max(1, now.data.saved)
            : now.data.status === 'done'
              ? 1
              : now.data.done / Math.max(1, now.data.total),
    );
    const words: Record<Job['status'], string> = {
        draft: 'Not begun.',
        trying: 'It is being tried…',
        tried: 'Tried.',
        waiting: 'It is about to begin…',
        running: 'At work…',
        stopped: 'Stopped. What is done stays done.',
        done: 'Done.',
        undoing: 'Taking back…',
        undone: 'Taken back.',
    };

    async function turn(act: 'stop' | 'go-on' | 'undo') {
        try {
            await ask(api.POST(`/api/bulk/{id}/${act}`, { params: { path: { id } } }));
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        await client.invalidateQueries({ queryKey: ['bulk', id] });
    }
</script>

<Modal bind:open size="sm" dismissable={false} classes={{ body: 'p-6' }}>
    <h2 class="text-lg">{title}</h2>
    <p class="mt-1 text-[13px] text-ink-2" aria-live="polite" data-progress={now.data.status}>
        {words[now.data.status]}
        {#if isUndo}{now.data.undone.toLocaleString('en-GB')} of {now.data.saved.toLocaleString('en-GB')} taken back.
        {:else}{now.data.saved.toLocaleString('en-GB')} of {countedOf(now.data.total, type)} saved{now.data.refused
                ? `, ${now.data.refused.toLocaleString('en-GB')} refused`
                : ''}.{/if}
    </p>
    <div class="mt-2 h-1.5 overflow-hidden rounded bg-ruled" role="progressbar" aria-label={title} aria-valuenow={Math.round(share * 100)}>
        <div class="h-full bg-iris transition-[width]" style:width="{100 * share}%"></div>
    </div>
    {#if now.data.problems.length}
        <div class="scroll mt-3 max-h-56 text-[13px]">
            {#each now.data.problems as problem (problem.place)}
                <div class="flex items-baseline gap-3 border-b border-ruled py-1">
                    {#if problem.recordId}<a class="figures mini hover:text-iris" href="/records/{type.name}/{problem.recordId}"
                            >{problem.recordNumber}</a
                        >{:else}<span class="figures mini">row {problem.place}</span>{/if}<span class="min-w-0 flex-1">{problem.said}</span>
                </div>
            {/each}
        </div>
    {/if}
    <div class="mt-4 flex items-center justify-end gap-2">
        {#if isAtWork}<span class="mini mr-auto">It goes on when you close this.</span>{/if}
        {#if ['waiting', 'running'].includes(now.data.status)}<button type="button" class="btn" onclick={() => turn('stop')}>Stop</button>
        {:else if now.data.status === 'stopped'}<button type="button" class="btn" onclick={() => turn('go-on')}>Go on</button>{/if}
        {#if ['stopped', 'done'].includes(now.data.status) && now.data.saved}<button
                type="button"
                class="btn danger"
                onclick={() => turn('undo')}>Undo</button
            >{/if}
        <button type="button" class="btn go" onclick={() => (open = false)}>Close</button>
    </div>
</Modal>
