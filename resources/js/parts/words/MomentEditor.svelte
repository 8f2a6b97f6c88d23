<script lang="ts">
    import type { Document } from '../../state/document.svelte';
    import { put, type JsonObject } from '../../state/pointer';
    import DueFields from './DueFields.svelte';

    /* How far from a date a rule starts, or how long quiet has to last. */
    type Props = { document: Document; at: string; onclose: () => void };
    let { document: page, at, onclose }: Props = $props();
    // svelte-ignore state_referenced_locally
    const given = (page.at(at) ?? {}) as JsonObject;
    const isDate = given.kind === 'date';
    const keys = ['amount', 'unit', 'roll', 'time', 'clock'];
    let due = $state<JsonObject>(
        Object.fromEntries(keys.filter((key) => given[key] !== undefined).map((key) => [key, given[key] ?? null])),
    );

    function done(event: SubmitEvent) {
        event.preventDefault();
        const kept = Object.fromEntries(Object.entries(given).filter(([key]) => !keys.includes(key)));
        void page.edit((file) => put(file, at, { ...kept, ...{ amount: 1, unit: 'day' }, ...due }));
        onclose();
    }
</script>

<form class="w-[380px]" onsubmit={done}>
    <div class="space-y-2 px-4 py-3">
        <DueFields bind:due sides={isDate ? ['after', 'before'] : null} least={isDate ? 0 : 1} clocks={isDate} rolls={isDate} />
    </div>
    <div class="keys"><span><kbd>Enter</kbd>done</span><span><kbd>Esc</kbd>close</span><button class="link ml-auto">Done</button></div>
</form>
