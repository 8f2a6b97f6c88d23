<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../../api/client';
    import MessageRow from '../../parts/MessageRow.svelte';
    import { within } from '../../state/words';

    let { type, id }: { type: Resources['TypeResource']; id: number } = $props();
    const messages = createQuery(() => ({
        queryKey: ['messages', type.name, id],
        queryFn: () => ask(api.GET('/api/records/{type}/{id}/messages', { params: { path: { type: type.name, id } } })),
        refetchInterval: 5000,
    }));
</script>

<div class="scroll">
    <div class="margined">
        {#each messages.data ?? [] as message (message.id)}
            <MessageRow {message} elsewhere={message.recordType !== type.name || message.recordId !== id} />
        {:else}
            {#if messages.data}
                <div class="empty pl-[134px]!">
                    <h2>No message yet.</h2>
                    <p>What a rule sends about this {within(type.label)}, or to it, stands here.</p>
                </div>
            {/if}
        {/each}
    </div>
</div>
