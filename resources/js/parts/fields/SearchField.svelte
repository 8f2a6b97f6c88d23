<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { untrack } from 'svelte';

    /* A field to search by: what is typed is told a moment after the last letter. */
    type Props = { label: string; value: string; onsearch: (text: string) => void };
    let { label, value, onsearch }: Props = $props();
    const MOMENT = 200;
    let typed = $state(untrack(() => value));
    let told = untrack(() => value);
    let waiting: ReturnType<typeof setTimeout> | undefined;
    $effect(() => {
        // It was changed from elsewhere, not by what was typed here.
        if (value !== told) typed = told = value;
    });

    function type() {
        clearTimeout(waiting);
        waiting = setTimeout(() => onsearch((told = typed)), MOMENT);
    }
</script>

<Input type="search" class="h-8" placeholder={label} aria-label={label} bind:value={typed} oninput={type} />
