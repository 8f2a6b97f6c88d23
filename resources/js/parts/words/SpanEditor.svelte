<script lang="ts">
    import type { JsonObject } from '../../state/pointer';
    import { session } from '../../state/session.svelte';

    /* An amount of time; signed, it can lie before or after. */
    type Props = {
        span: unknown;
        signed?: boolean;
        daysOnly?: boolean;
        before?: string;
        after?: string;
        ondone: (span: { amount: number; unit: string }) => void;
        /** Leads to what else than an amount of time can stand here. */
        onother?: () => void;
    };
    let { span, signed = false, daysOnly = false, before = 'before', after = 'after', ondone, onother }: Props = $props();
    // svelte-ignore state_referenced_locally
    const given = (typeof span === 'object' && span !== null && !Array.isArray(span) ? span : {}) as JsonObject;
    let amount = $state(Math.abs(Number(given.amount ?? 7)));
    let unit = $state(String(given.unit ?? 'day'));
    let side = $state(Number(given.amount ?? 1) < 0 ? -1 : 1);

    function done(event: SubmitEvent) {
        event.preventDefault();
        ondone({ amount: signed ? amount * side : amount, unit });
    }
    const units = $derived((session.schema?.units ?? []).filter((offer) => !daysOnly || !['minute', 'hour'].includes(offer.kind)));
</script>

<form class="w-[320px]" onsubmit={done}>
    <div class="flex items-center gap-2 px-4 py-3">
        <!-- svelte-ignore a11y_autofocus -->
        <input class="input w-20" type="number" min="0" step="1" aria-label="Amount" bind:value={amount} autofocus />
        <select class="input" aria-label="Unit" bind:value={unit}>
            {#each units as offer (offer.kind)}
                <option value={offer.kind}>{offer.label}</option>
            {/each}
        </select>
        {#if signed}
            <select class="input" aria-label="Before or after" bind:value={side}>
                <option value={1}>{after}</option>
                <option value={-1}>{before}</option>
            </select>
        {/if}
    </div>
    <div class="keys">
        <span><kbd>Enter</kbd>done</span><span><kbd>Esc</kbd>close</span>{#if onother}<button
                type="button"
                class="link ml-auto"
                onclick={onother}>Or…</button
            >{/if}<button class="link {onother ? '' : 'ml-auto'}">Done</button>
    </div>
</form>
