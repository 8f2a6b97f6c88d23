<script lang="ts">
    import type { Json, JsonObject } from '../state/pointer';
    import { session } from '../state/session.svelte';

    type Props = { due: Json | undefined; ondone: (due: JsonObject | null) => void };
    let { due, ondone }: Props = $props();
    // svelte-ignore state_referenced_locally
    const given = (typeof due === 'object' && due !== null && !Array.isArray(due) ? due : {}) as JsonObject;
    let amount = $state(Number(given.amount ?? 1));
    let unit = $state(String(given.unit ?? 'day'));

    function done(event: SubmitEvent) {
        event.preventDefault();
        ondone({ amount, unit });
    }
</script>

<form class="w-[300px]" onsubmit={done}>
    <div class="flex items-center gap-2 px-4 py-3">
        <!-- svelte-ignore a11y_autofocus -->
        <input class="input w-20" type="number" min="0" step="1" aria-label="Amount" bind:value={amount} autofocus />
        <select class="input" aria-label="Unit" bind:value={unit}>
            {#each session.schema?.units ?? [] as offer (offer.kind)}<option value={offer.kind}>{offer.label}</option>{/each}
        </select>
        <span class="text-ink-2">later</span>
    </div>
    <div class="keys">
        <span><kbd>Enter</kbd>done</span>
        <button type="button" class="link ml-auto" onclick={() => ondone(null)}>No due date</button>
        <button class="link">Done</button>
    </div>
</form>
