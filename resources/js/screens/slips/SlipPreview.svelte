<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said } from '../../api/client';
    import type { JsonObject } from '../../state/pointer';

    /* The page itself, as it would arrive: at the width of a phone, or of a desk. */
    type Props = { type: string; subject: string; body: string; asks: JsonObject[] };
    let { type, subject, body, asks }: Props = $props();
    let width = $state<'phone' | 'desk'>('phone');
    const page = createQuery(() => ({
        queryKey: ['slip-preview', type, subject, body, JSON.stringify(asks)],
        queryFn: () => ask(api.POST('/api/slip-forms/preview', { body: { recordType: type, subject, body, asks } })),
        placeholderData: (before: { html: string; of: string | null } | undefined) => before,
    }));
</script>

<div class="mb-2 flex items-center gap-3">
    <div class="segments" role="group" aria-label="Width">
        <button type="button" aria-pressed={width === 'phone'} onclick={() => (width = 'phone')}>Phone</button>
        <button type="button" aria-pressed={width === 'desk'} onclick={() => (width = 'desk')}>Desk</button>
    </div>
    <span class="mini">{page.data?.of ? `with the values of ${page.data.of}` : ''}</span>
</div>
{#if page.isError}
    <p class="callout bad">{said(page.error)}</p>
{:else if page.data}
    <div class="grid justify-items-center overflow-auto rounded-md border border-edge bg-desk p-3">
        <iframe
            title="The page as it would look"
            class="border border-edge bg-page {width === 'phone' ? 'h-[620px] w-[390px] rounded-[18px]' : 'h-[620px] w-[900px]'}"
            srcdoc={page.data.html}
        ></iframe>
    </div>
{/if}
