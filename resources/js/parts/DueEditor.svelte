<script lang="ts">
    import { untrack } from 'svelte';
    import type { Json, JsonObject } from '../state/pointer';
    import { fieldOptions, MOMENTS } from './offers';
    import DueFields from './words/DueFields.svelte';

    /* When a task falls due: so long after now, or before and after a date. */
    type Props = { type: string; due: Json | undefined; ondone: (due: JsonObject | null) => void };
    let { type, due, ondone }: Props = $props();
    const given = untrack(() => (typeof due === 'object' && due !== null && !Array.isArray(due) ? due : {}) as JsonObject);
    let from = $state(String(given.from ?? ''));
    let rest = $state<JsonObject>({
        amount: 1,
        unit: 'day',
        ...Object.fromEntries(Object.entries(given).filter(([key]) => key !== 'from')),
    });

    function done(event: SubmitEvent) {
        event.preventDefault();
        ondone(from ? { ...rest, from } : { ...rest, amount: Math.abs(Number(rest.amount)) });
    }
</script>

<form class="w-[430px]" onsubmit={done}>
    <div class="space-y-2 px-4 py-3">
        <DueFields bind:due={rest} sides={from ? ['after', 'before'] : null} />
        <label class="flex items-center gap-2 text-[12.5px] text-ink-2"
            >counted from <select class="input min-w-0" aria-label="Counted from" bind:value={from}>
                <option value="">now</option>
                {#each fieldOptions(type, (field) => MOMENTS.includes(field.type)) as option (option.key)}<option value={option.key}
                        >{option.label}</option
                    >{/each}
            </select></label
        >
    </div>
    <div class="keys">
        <span><kbd>Enter</kbd>done</span>
        <button type="button" class="link ml-auto" onclick={() => ondone(null)}>No due date</button>
        <button class="link">Done</button>
    </div>
</form>
