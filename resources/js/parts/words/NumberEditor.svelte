<script lang="ts">
    import type { Json } from '../../state/pointer';
    import Choose from '../Choose.svelte';
    import { fieldOptions, NUMBERS } from '../offers';

    /* A number, or a field that holds one. */
    type Props = { type: string; value: Json | undefined; fields?: boolean; ondone: (value: Json) => void; onclose: () => void };
    let { type, value, fields = false, ondone, onclose }: Props = $props();
    // svelte-ignore state_referenced_locally
    let typed = $state(typeof value === 'string' || typeof value === 'number' ? String(value) : '');
    let choosing = $state(false);

    function done(event: SubmitEvent) {
        event.preventDefault();
        if (typed !== '') ondone(typed.trim());
    }
</script>

{#if choosing}
    <Choose
        title="Field"
        options={fieldOptions(type, (field) => NUMBERS.includes(field.type))}
        onchoose={([path]) => ondone({ path: path ?? '' })}
        {onclose}
    />
{:else}
    <form class="w-[280px]" onsubmit={done}>
        <div class="px-4 py-3">
            <!-- svelte-ignore a11y_autofocus -->
            <input class="input figures" inputmode="decimal" aria-label="Number" bind:value={typed} autofocus />
        </div>
        <div class="keys">
            <span><kbd>Enter</kbd>done</span>
            {#if fields}<button type="button" class="link ml-auto" onclick={() => (choosing = true)}>A field instead…</button>{/if}
            <button class="link {fields ? '' : 'ml-auto'}">Done</button>
        </div>
    </form>
{/if}
