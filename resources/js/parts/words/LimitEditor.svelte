<script lang="ts">
    import type { Document } from '../../state/document.svelte';
    import { split, type Json, type JsonObject } from '../../state/pointer';
    import { session } from '../../state/session.svelte';

    /* Quiet hours, or a cap on messages: what no line may break. */
    type Props = { document: Document; at: string; onclose: () => void };
    let { document: page, at, onclose }: Props = $props();
    // svelte-ignore state_referenced_locally
    const given = (page.at(at) ?? {}) as JsonObject;
    const hours = $derived(split(at)[1] === 'outside');
    let from = $state(String(given.from ?? '08:00'));
    let to = $state(String(given.to ?? '18:00'));
    let workingDays = $state(given.workingDays === true);
    let clock = $state(String(given.clock ?? ''));
    let messages = $state(Number(given.messages ?? 2));
    let amount = $state(Number(given.amount ?? 1));
    let unit = $state(String(given.unit ?? 'week'));
    let then = $state(String(given.then ?? 'wait'));

    function keep(value: Json | undefined) {
        void page.edit((file) => {
            const never = { ...((file.never ?? {}) as JsonObject) };
            if (value === undefined) delete never[split(at)[1]];
            else never[split(at)[1]] = value;
            if (Object.keys(never).length) file.never = never;
            else delete file.never;
        });
        onclose();
    }

    const said = () => JSON.stringify([from, to, workingDays, clock, messages, amount, unit, then]);
    const before = said();

    function done(event: SubmitEvent) {
        event.preventDefault();
        if (said() === before && Object.keys(given).length > 0) return onclose();
        keep(
            hours
                ? { from, to, ...(workingDays ? { workingDays } : {}), ...(clock ? { clock } : {}) }
                : { messages, amount, unit, ...(then === 'drop' ? { then } : {}) },
        );
    }
</script>

<form class="w-[380px]" onsubmit={done}>
    <div class="space-y-2 px-4 py-3 text-[12.5px] text-ink-2">
        {#if hours}
            <p>Lines are done only between these times. Others wait for the next that is allowed.</p>
            <div class="flex items-center gap-2">
                <!-- svelte-ignore a11y_autofocus -->
                <input
                    class="input figures w-20!"
                    type="text"
                    inputmode="numeric"
                    placeholder="09:00"
                    maxlength="5"
                    pattern="([01][0-9]|2[0-3]):[0-5][0-9]|24:00"
                    aria-label="From"
                    bind:value={from}
                    autofocus
                />
                to
                <input
                    class="input figures w-20!"
                    type="text"
                    inputmode="numeric"
                    placeholder="09:00"
                    maxlength="5"
                    pattern="([01][0-9]|2[0-3]):[0-5][0-9]|24:00"
                    aria-label="To"
                    bind:value={to}
                />
            </div>
            <label class="flex items-center gap-2"
                ><input type="checkbox" class="accent-(--iris)" bind:checked={workingDays} />on working days only</label
            >
            <select class="input" aria-label="By whose clock" bind:value={clock}>
                <option value="">by the company’s clock</option>
                <option value="owner">by the owner’s clock</option>
            </select>
        {:else}
            <p>Counted for each address, over all rules together.</p>
            <div class="flex items-center gap-2">
                <!-- svelte-ignore a11y_autofocus -->
                at most <input class="input w-16!" type="number" min="1" max="1000" aria-label="Messages" bind:value={messages} autofocus />
                in
                <input class="input w-16!" type="number" min="1" aria-label="Amount" bind:value={amount} />
                <select class="input" aria-label="Unit" bind:value={unit}>
                    {#each session.schema?.units ?? [] as offer (offer.kind)}<option value={offer.kind}>{offer.label}</option>{/each}
                </select>
            </div>
            <select class="input" aria-label="What is over" bind:value={then}>
                <option value="wait">what is over waits</option>
                <option value="drop">what is over is dropped</option>
            </select>
        {/if}
    </div>
    <div class="keys">
        <span><kbd>Enter</kbd>done</span>
        {#if Object.keys(given).length}<button type="button" class="link ml-auto" onclick={() => keep(undefined)}>No limit</button>{/if}
        <button class="link {Object.keys(given).length ? '' : 'ml-auto'}">Done</button>
    </div>
</form>
