<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { onMount } from 'svelte';
    import type { Resources } from '../api/client';
    import { fromLocalField, toLocalField } from '../state/moments';
    import { clock } from '../state/session.svelte';
    import { ahead } from './ahead';
    import { takesFocus } from './focus';
    import DateField from './fields/DateField.svelte';
    import { NUMBERS } from './offers';
    import { language } from '../state/language.svelte';
    import { shownNumber, typedNumber } from '../state/numbers';

    type Props = {
        field: Resources['FieldResource'];
        value: string;
        label?: string;
        /** Whether nothing is an answer too. */
        empty?: boolean;
        /** Whether several values can be given. */
        several?: boolean;
        ondone: (value: string) => void;
        /** Leads to what else than a value can stand here. */
        onother?: () => void;
    };
    let { field, value, label = field.label, empty = false, several = false, ondone, onother }: Props = $props();
    // svelte-ignore state_referenced_locally
    let typed = $state(
        field.type === 'date_time' && value ? toLocalField(value) : NUMBERS.includes(field.type) ? shownNumber(value) : value,
    );
    let form = $state<HTMLFormElement>();
    onMount(() => {
        // What waited for the server has the keyboard no more; whoever typed meanwhile goes on typing here.
        const input = form?.querySelector('input');
        if (input) takesFocus(input);
        const [early = '', ...enters] = ahead.take().split('\n');
        if (early && kind === 'text') typed = early;
        if (early && enters.length && kind === 'text') give();
    });
    const kind = $derived(field.type === 'date' ? 'day' : field.type === 'date_time' ? 'moment' : 'text');
    const unit = $derived(field.type === 'percent' ? '%' : field.type === 'money' ? (field.currency ?? '') : '');

    function done(event: SubmitEvent) {
        event.preventDefault();
        give();
    }

    /** Several are parted by commas, with a space behind where a comma can be within a number, or by semicolons. */
    const numbersIn = (text: string) =>
        (several ? text.split(language.code === 'de' ? /, |;/ : /[,;]/) : [text]).map((one) => typedNumber(one.trim())).join(', ');

    function give() {
        if (typed === '' && !empty) return;
        ondone(field.type === 'date_time' ? fromLocalField(typed) : NUMBERS.includes(field.type) ? numbersIn(typed) : typed);
    }
</script>

<form bind:this={form} class="w-[300px]" onsubmit={done}>
    <label class="block px-4 pt-3 text-[12.5px] text-ink-2" for="typed">{label}{field.type === 'date_time' ? ` (${clock.zone})` : ''}</label
    >
    <div class="flex items-center gap-2 px-4 pt-1 pb-3">
        {#if kind !== 'text'}<DateField id="typed" label={field.label} time={kind === 'moment'} bind:value={typed} autofocus />
        {:else}<Input id="typed" inputmode={NUMBERS.includes(field.type) ? 'decimal' : undefined} bind:value={typed} autofocus />{/if}
        {#if unit}<span class="text-ink-2">{unit}</span>{/if}
    </div>
    <div class="keys">
        <span><kbd>Enter</kbd>done</span><span><kbd>Esc</kbd>close</span>{#if onother}<button
                type="button"
                class="link ml-auto"
                onclick={onother}>Or…</button
            >{/if}<button class="link {onother ? '' : 'ml-auto'}">Done</button>
    </div>
</form>
