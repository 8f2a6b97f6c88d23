<script lang="ts">
    import { createInfiniteQuery, useQueryClient } from '@tanstack/svelte-query';
    import { Modal } from 'flowbite-svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import { moment } from '../../state/moments';
    import { toasts } from '../../state/toasts.svelte';
    import { within } from '../../state/words';

    /* What was deleted, to be brought back under its own number. */
    type Props = { type: Resources['TypeResource']; onclose: () => void };
    let { type, onclose }: Props = $props();
    const client = useQueryClient();
    let open = $state(true);
    $effect(() => {
        if (!open) onclose();
    });
    const bin = createInfiniteQuery(() => ({
        queryKey: ['bin', type.name],
        initialPageParam: undefined as number | undefined,
        queryFn: ({ pageParam }) =>
            ask(api.GET('/api/records/{type}/bin', { params: { path: { type: type.name }, query: { before: pageParam } } })),
        getNextPageParam: (page: Resources['BinPage']) => page.before ?? undefined,
    }));
    const gone = $derived((bin.data?.pages ?? []).flatMap((page) => page.records));

    async function restore(id: number, number: string) {
        try {
            await ask(api.POST('/api/records/{type}/{id}/restore', { params: { path: { type: type.name, id } } }));
            toasts.tell(`${number} is back.`);
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        await client.invalidateQueries();
    }
</script>

<Modal bind:open size="sm" dismissable={false} classes={{ body: 'p-6' }}>
    <h2 class="text-lg">Deleted {within(type.plural)}</h2>
    {#if bin.isError}<p class="callout bad mt-3">{said(bin.error)}</p>{/if}
    <div class="scroll mt-3 max-h-96 text-[13px]">
        {#each gone as record (record.id)}
            <div class="flex items-baseline gap-3 border-b border-ruled py-1.5">
                <span class="figures mini">{record.number}</span><span class="min-w-0 flex-1 truncate">{record.title}</span>
                <span class="mini">{moment(record.at)}, {record.by}</span>
                <button type="button" class="link" onclick={() => restore(record.id, record.number)}>Bring back</button>
            </div>
        {:else}<p class="mini">{bin.data ? 'Nothing is deleted.' : 'Reading…'}</p>{/each}
        {#if bin.hasNextPage}<button type="button" class="link mt-2" onclick={() => bin.fetchNextPage()}>Show earlier ones</button>{/if}
    </div>
    <div class="mt-4 flex justify-end"><button type="button" class="btn go" onclick={() => (open = false)}>Close</button></div>
</Modal>
