<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask } from '../../api/client';
    import type { Document } from '../../state/document.svelte';
    import { at as valueAt, put, type Json, type JsonObject } from '../../state/pointer';
    import Choose from '../Choose.svelte';
    import type { Option } from '../options';

    /* Chooses among what the server offers for a word. */
    type Props = {
        document: Document;
        at: string;
        title: string;
        /** Options of the screen's own, before those of the server; their keys begin with ":". */
        further?: Option[];
        onfurther?: (key: string) => void;
        onclose: () => void;
    };
    let { document: page, at, title, further = [], onfurther, onclose }: Props = $props();

    const offers = createQuery(() => ({
        queryKey: ['offers', at, JSON.stringify(page.file)],
        queryFn: () => ask(api.POST('/api/offers', { body: { file: page.file, at, on: page.isFilter ? page.type : null } })),
    }));
    const chosen = $derived.by(() => {
        const value = page.at(at) ?? null;
        const list = offers.data ?? [];
        const same = list.findIndex((offer) => JSON.stringify(offer.value ?? null) === JSON.stringify(value));
        // What says more than its offer is still of the sort it began with.
        const on = (one: unknown) => (one as JsonObject | null)?.on;
        const index = same >= 0 ? same : list.findIndex((offer) => on(value) !== undefined && on(offer.value) === on(value));
        return index < 0 ? [] : [String(index)];
    });

    function choose(key: string | undefined) {
        if (key?.startsWith(':')) return onfurther?.(key);
        if (key !== undefined && chosen[0] === key) return onclose();
        const offer = offers.data?.[Number(key)];
        if (offer) {
            const value = offer.value as Json;
            if (offer.merge)
                void page.edit((file) => put(file, at, { ...((valueAt(file, at) ?? {}) as JsonObject), ...(value as JsonObject) }));
            else void page.put(at, value ?? undefined);
        }
        onclose();
    }
</script>

{#if offers.data}
    <Choose
        {title}
        options={[
            ...further,
            ...offers.data.map((offer, index) => ({
                key: String(index),
                label: offer.label,
                group: offer.group || undefined,
                hint: offer.hint || undefined,
            })),
        ]}
        {chosen}
        onchoose={([key]) => choose(key)}
        {onclose}
    />
{:else}
    <p class="w-[320px] p-4 text-[13px] text-ink-3">Looking…</p>
{/if}
