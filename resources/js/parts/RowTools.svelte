<script lang="ts" module>
    export type Deed = { label: string; keys: string; act: () => unknown };
</script>

<script lang="ts">
    import { Ellipsis, X } from '@lucide/svelte';
    import Floating from './Floating.svelte';

    /** What can be done with a row of a page: taking it away at once, the rest in a menu that says the keys too. */
    type Props = { deeds: Deed[]; onremove: () => void };
    let { deeds, onremove }: Props = $props();
    let anchor = $state<HTMLElement | null>(null);

    function choose(deed: Deed) {
        anchor = null;
        deed.act();
    }

    /** Up and down go through the menu. */
    function key(event: KeyboardEvent) {
        const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
        if (!step) return;
        event.preventDefault();
        const items = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('button')];
        const next = items.indexOf(document.activeElement as HTMLElement) + step;
        items[(next + items.length) % items.length]?.focus();
    }
</script>

<div class="tools">
    {#if deeds.length}
        <button
            type="button"
            class="icon"
            tabindex="-1"
            title="Move, duplicate and more"
            aria-label="Move, duplicate and more"
            aria-haspopup="menu"
            aria-expanded={anchor !== null}
            onclick={(event) => (anchor = anchor ? null : event.currentTarget)}><Ellipsis size={14} /></button
        >
    {/if}
    <button type="button" class="icon" tabindex="-1" title="Remove (Delete)" aria-label="Remove" onclick={onremove}><X size={14} /></button>
</div>
{#if anchor}
    <Floating {anchor} label="What to do with this row" onclose={() => (anchor = null)}>
        <div class="min-w-[190px] py-1" role="menu" tabindex="-1" onkeydown={key}>
            {#each deeds as deed (deed.label)}
                <button type="button" class="option flex items-center gap-6" role="menuitem" onclick={() => choose(deed)}
                    ><span class="flex-1">{deed.label}</span><kbd>{deed.keys}</kbd></button
                >
            {/each}
        </div>
    </Floating>
{/if}
