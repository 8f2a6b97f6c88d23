<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { Modal } from 'flowbite-svelte';
    import { api, ask, type Resources } from '../api/client';
    import ProgressBar from './ProgressBar.svelte';
    import Stamp from './Stamp.svelte';
    import { inFigures } from '../state/numbers';
    import { say } from '../state/words';

    let { run, onclose }: { run: Resources['RunResource']; onclose: () => void } = $props();
    const client = useQueryClient();
    let open = $state(true);
    $effect(() => {
        if (!open) {
            void client.invalidateQueries();
            onclose();
        }
    });
    const now = createQuery(() => ({
        queryKey: ['run', run.id],
        initialData: run,
        queryFn: () => ask(api.GET('/api/runs/{id}', { params: { path: { id: run.id } } })),
        refetchInterval: (query) => (query.state.data?.status === 'done' ? false : 600),
    }));
    const states: Record<string, { tone: string; label: string }> = {
        waiting: { tone: 'harbor', label: say('waiting') },
        fired: { tone: 'fern', label: say('fired') },
        silent: { tone: 'marigold', label: say('silent') },
        refused: { tone: 'madder', label: say('refused') },
    };
</script>

<Modal bind:open size="sm" dismissable={false} classes={{ body: 'p-6' }}>
    <h2 class="text-lg">{now.data.ruleName}</h2>
    <p class="mt-1 text-[13px] text-ink-2" aria-live="polite">
        {inFigures(now.data.done)} of {inFigures(now.data.total)} answered, {inFigures(now.data.fired)}
        fired{#if now.data.status !== 'done'}…{/if}
    </p>
    <ProgressBar share={now.data.done / Math.max(1, now.data.total)} label={now.data.ruleName} />
    <div class="scroll mt-4 max-h-72">
        {#each now.data.results as result (result.recordId)}
            <div class="flex items-baseline gap-3 border-b border-ruled py-1.5 text-[13px]">
                <a class="hover:text-iris min-w-0 flex-1 truncate" href="/records/{now.data.recordType}/{result.recordId}"
                    ><span class="figures mini">{result.recordNumber}</span> {result.recordTitle}</a
                >
                <span class="mini truncate">{result.said}</span>
                {#if result.entry}<a class="link text-[12.5px]" href="/ledger/{result.entry}">Why?</a>{/if}
                <Stamp tone={states[result.result]?.tone ?? 'harbor'}>{states[result.result]?.label}</Stamp>
            </div>
        {/each}
        {#if now.data.total > now.data.results.length}<p class="mini py-2">The first {now.data.results.length} are listed.</p>{/if}
    </div>
    <p class="mini mt-3">It goes on when you close this.</p>
    <div class="mt-2 flex justify-end"><button type="button" class="btn go" onclick={() => (open = false)}>Close</button></div>
</Modal>
