<script lang="ts">
    import { untrack } from 'svelte';
    import type { Json, JsonObject } from '../state/pointer';
    import { session } from '../state/session.svelte';
    import { fieldOptions, MOMENTS } from './offers';

    type Props = { type: string; due: Json | undefined; ondone: (due: JsonObject | null) => void };
    let { type, due, ondone }: Props = $props();
    const given = untrack(() => (typeof due === 'object' && due !== null && !Array.isArray(due) ? due : {}) as JsonObject);
    let amount = $state(Math.abs(Number(given.amount ?? 1)));
    let unit = $state(String(given.unit ?? 'day'));
    let side = $state(Number(given.amount ?? 1) < 0 ? -1 : 1);
    let from = $state(String(given.from ?? ''));

    function done(event: SubmitEvent) {
        event.preventDefault();
        ondone(from ? { amount: amount * side, unit, from } : { amount, unit });
    }
</script>

<form class="w-[430px]" onsubmit={done}>
    <div class="flex items-center gap-2 px-4 py-3">
        <!-- svelte-ignore a11y_autofocus -->
        <input class="input w-16 shrink-0" type="number" min="0" step="1" aria-label="Amount" bind:value={amount} autofocus />
        <select class="input w-28 shrink-0" aria-label="Unit" bind:value={unit}>
            {#each session.schema?.units ?? [] as offer (offer.kind)}<option value={offer.kind}>{offer.label}</option>{/each}
        </select>
        {#if from}
            <select class="input w-24 shrink-0" aria-label="Before or after" bind:value={side}>
                <option value={1}>after</option>
                <option value={-1}>before</option>
            </select>
        {/if}
        <select class="input min-w-0" aria-label="Counted from" bind:value={from}>
            <option value="">later</option>
            {#each fieldOptions(type, (field) => MOMENTS.includes(field.type)) as option (option.key)}<option value={option.key}
                    >{option.label}</option
                >{/each}
        </select>
    </div>
    <div class="keys">
        <span><kbd>Enter</kbd>done</span>
        <button type="button" class="link ml-auto" onclick={() => ondone(null)}>No due date</button>
        <button class="link">Done</button>
    </div>
</form>
