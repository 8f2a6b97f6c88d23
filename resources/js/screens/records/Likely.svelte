<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../../api/client';

    /* Records that are there already and are called nearly so: perhaps the new one is one of them. */
    type Props = { type: Resources['TypeResource']; title: string };
    let { type, title }: Props = $props();
    const SHORTEST = 4;
    const MOST = 4;
    const words = $derived(title.trim());
    const found = createQuery(() => ({
        queryKey: ['find', words],
        enabled: words.length >= SHORTEST,
        queryFn: ({ signal }) => ask(api.GET('/api/find', { params: { query: { text: words } }, signal })),
    }));
    const likely = $derived(
        words.length < SHORTEST ? [] : (found.data?.records ?? []).filter((record) => record.type === type.name).slice(0, MOST),
    );
</script>

{#if likely.length}
    <p class="callout mt-3 max-w-4xl" role="status">
        Called much the same already:
        {#each likely as record, index (record.id)}{index ? ', ' : ''}<a
                class="link"
                href="/records/{type.name}/{record.id}"
                target="_blank">{record.title}</a
            >
            <span class="figures mini">{record.number}</span>{/each}.
    </p>
{/if}
