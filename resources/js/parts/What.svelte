<script lang="ts">
    import { CircleHelp } from '@lucide/svelte';
    import type { Snippet } from 'svelte';
    import Floating from './Floating.svelte';

    /* What a word means, where it stands: one line and an example, for whoever asks. */
    let { word, children, example }: { word: string; children: Snippet; example?: Snippet } = $props();
    let anchor = $state<HTMLElement | null>(null);
</script>

<button
    type="button"
    class="icon -my-1 align-middle"
    aria-label="What is {word}?"
    aria-expanded={anchor !== null}
    onclick={(event) => (anchor = anchor ? null : event.currentTarget)}><CircleHelp size={14} /></button
>
{#if anchor}
    <Floating {anchor} label={word} onclose={() => (anchor = null)}>
        <div class="max-w-[300px] px-4 py-3 text-left text-[13px] leading-normal font-normal whitespace-normal text-ink">
            <p>{@render children()}</p>
            {#if example}<p class="mt-1.5 text-ink-2">{@render example()}</p>{/if}
        </div>
    </Floating>
{/if}
