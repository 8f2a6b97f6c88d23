<script lang="ts">
    import { Input, Select } from 'flowbite-svelte';
    import type { JsonObject } from '../../state/pointer';
    import { takesFocus } from '../focus';
    import { session } from '../../state/session.svelte';
    import TimeOfDay from './TimeOfDay.svelte';

    /* How far from a base a moment lies: an amount and a unit, then a working day, then a time of day. */
    type Props = {
        due: JsonObject;
        /** Words for after and before the base; left out, it only lies after. */
        sides?: [string, string] | null;
        least?: number;
        clocks?: boolean;
        rolls?: boolean;
        /** The units there are; none for all. */
        units?: string[];
        /** Whether it takes the keyboard when it is opened. */
        focus?: boolean;
    };
    let { due = $bindable(), sides = null, least = 0, clocks = false, rolls = true, units = [], focus = true }: Props = $props();
    const shown = $derived((session.schema?.units ?? []).filter((offer) => units.length === 0 || units.includes(offer.kind)));
    const amount = $derived(Number(due.amount ?? least));
    const short = $derived(['minute', 'hour', 'working_hour'].includes(String(due.unit ?? 'day')));

    function put(change: JsonObject) {
        const next = { ...due, ...change };
        if (['minute', 'hour', 'working_hour'].includes(String(next.unit))) delete next.time;
        for (const key of ['roll', 'time', 'clock']) if (!next[key]) delete next[key];
        due = next;
    }
</script>

<div class="flex items-center gap-2">
    <Input
        class="w-16! shrink-0"
        type="number"
        min={least}
        step="1"
        aria-label="Amount"
        bind:value={() => Math.abs(amount), (next) => put({ amount: Math.abs(Number(next ?? 0)) * (amount < 0 ? -1 : 1) })}
        {@attach (node) => {
            if (focus) takesFocus(node);
        }}
    />
    <Select
        placeholder=""
        class="w-36 shrink-0"
        aria-label="Unit"
        value={String(due.unit ?? 'day')}
        onchange={(event) => put({ unit: event.currentTarget.value })}
    >
        {#each shown as offer (offer.kind)}<option value={offer.kind}>{offer.label}</option>{/each}
    </Select>
    {#if sides}
        <Select
            placeholder=""
            class="min-w-24"
            aria-label="Before or after"
            value={amount < 0 ? -1 : 1}
            onchange={(event) => put({ amount: Math.abs(amount) * Number(event.currentTarget.value) })}
        >
            <option value={1}>{sides[0]}</option>
            <option value={-1}>{sides[1]}</option>
        </Select>
    {/if}
</div>
{#if rolls}
    <div class="flex items-center gap-2">
        {#if !short}
            <label class="flex shrink-0 items-center gap-2 text-[12.5px] text-ink-2"
                >at <TimeOfDay bind:value={() => String(due.time ?? ''), (time) => put({ time })} /></label
            >
        {/if}
        <Select
            placeholder=""
            aria-label="Working day"
            value={String(due.roll ?? '')}
            onchange={(event) => put({ roll: event.currentTarget.value })}
        >
            <option value="">on any day</option>
            <option value="next">or the next working day</option>
            <option value="previous">or the working day before</option>
        </Select>
    </div>
{/if}
{#if clocks}
    <Select
        placeholder=""
        aria-label="By whose clock"
        value={String(due.clock ?? '')}
        onchange={(event) => put({ clock: event.currentTarget.value })}
    >
        <option value="">by the company’s clock</option>
        <option value="owner">by the owner’s clock</option>
    </Select>
{/if}
