<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { Modal } from 'flowbite-svelte';
    import { untrack } from 'svelte';
    import { api, ask, type Resources } from '../../api/client';
    import ProgressBar from '../../parts/ProgressBar.svelte';
    import BulkActs from './BulkActs.svelte';
    import { isUndo, shareOf } from './bulk';
    import { inFigures } from '../../state/numbers';
    import { countedOf } from '../../state/words';

    /* How far work on many records is; it can be stopped, gone on with, and taken back. */
    type Job = Resources['BulkResource'];
    type Props = { job: Job; type: Resources['TypeResource']; title: string; onclose: () => void };
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
</script>

<Modal bind:open size="sm" dismissable={false} classes={{ body: 'p-6' }}>
    <h2 class="text-lg">{title}</h2>
    <p class="mt-1 text-[13px] text-ink-2" aria-live="polite" data-progress={now.data.status}>
        {words[now.data.status]}
        {#if isUndo(now.data)}{inFigures(now.data.undone)} of {inFigures(now.data.saved)} taken back.
        {:else}{inFigures(now.data.saved)} of {countedOf(now.data.total, type)} saved{now.data.refused
                ? `, ${inFigures(now.data.refused)} refused`
                : ''}.{/if}
    </p>
    <ProgressBar share={shareOf(now.data)} label={title} />
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
        <BulkActs job={now.data} onturned={() => client.invalidateQueries({ queryKey: ['bulk', id] })} />
        <button type="button" class="btn go" onclick={() => (open = false)}>Close</button>
    </div>
</Modal>
