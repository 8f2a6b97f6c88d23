<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../../api/client';
    import Choose from '../../parts/Choose.svelte';
    import Floating from '../../parts/Floating.svelte';

    /* The record, of whichever type, that something is about. */
    let { record = $bindable() }: { record: Resources['FoundResource'] | null } = $props();
    let choosing = $state<HTMLElement | null>(null);
    let typed = $state('');
    const found = createQuery(() => ({
        queryKey: ['find', typed],
        enabled: choosing !== null && typed.trim().length > 1,
        queryFn: () => ask(api.GET('/api/find', { params: { query: { text: typed } } })),
    }));
</script>

<button type="button" class="boxed text-left" aria-haspopup="dialog" onclick={(event) => (choosing = event.currentTarget)}>
    {#if record}<span class="figures mini">{record.number}</span> {record.title}{:else}<span class="text-ink-3">Choose a record…</span>{/if}
</button>
{#if choosing}
    <Floating anchor={choosing} label="About which record" onclose={() => (choosing = null)}>
        <Choose
            title="About"
            options={(found.data?.records ?? []).map((one) => ({ key: `${one.type} ${one.id}`, label: one.title, hint: one.number }))}
            onsearch={(text) => (typed = text)}
            onchoose={([key]) => {
                record = found.data?.records.find((one) => `${one.type} ${one.id}` === key) ?? record;
                choosing = null;
            }}
            onclose={() => (choosing = null)}
        />
    </Floating>
{/if}
