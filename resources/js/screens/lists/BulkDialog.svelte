<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { untrack } from 'svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import type { Json } from '../../state/pointer';
    import { toasts } from '../../state/toasts.svelte';
    import BulkEffect from './BulkEffect.svelte';
    import BulkProgress from './BulkProgress.svelte';
    import { countedOf } from '../../state/words';

    /* What changing many records would come to; then how far it is. */
    type Asked = { recordType: string; records?: number[]; filter?: string | null; search?: string; values: Record<string, Json> };
    type Props = {
        type: Resources['TypeResource'];
        count: number;
        title: string;
        asked: Asked;
        onclose: (isBegun: boolean) => void;
    };
    let { type, count, title, asked, onclose }: Props = $props();
    let job = $state.raw<Resources['BulkResource'] | null>(null);
    let busy = $state(false);
    const body = untrack(() => asked) as Asked & { values: Record<string, unknown> };
    const preview = createQuery(() => ({
        queryKey: ['bulk', 'preview', JSON.stringify(body)],
        queryFn: () => ask(api.POST('/api/bulk/preview', { body })),
        staleTime: 0,
    }));

    async function begin() {
        busy = true;
        try {
            job = await ask(api.POST('/api/bulk', { body }));
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        busy = false;
    }
</script>

{#if job}
    <BulkProgress {job} {type} {title} onclose={() => onclose(true)} />
{:else}
    <Confirm
        {title}
        go="Change {countedOf(count, type)}"
        busy={busy || !preview.data}
        onconfirm={begin}
        onclose={() => !job && onclose(false)}
    >
        {#if preview.isError}<p class="callout bad">{said(preview.error)}</p>
        {:else if preview.data}<BulkEffect preview={preview.data} {type} />
        {:else}<p class="mini">Trying it on paper…</p>{/if}
    </Confirm>
{/if}
