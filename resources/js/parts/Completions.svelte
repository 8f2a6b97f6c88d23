<script lang="ts">
    /** What could stand at the place where somebody types; the keys stay with the text. */
    type Props = { id: string; offers: string[]; chosen: number; ontake: (offer: string) => void; class?: string; style?: string };
    let { id, offers, chosen, ontake, class: where = '', style = '' }: Props = $props();
    let list = $state<HTMLElement>();
    $effect(() => {
        list?.children[chosen]?.scrollIntoView({ block: 'nearest' });
    });
</script>

<div bind:this={list} {id} class="floating overflow-auto! py-1 {where}" {style} role="listbox" aria-label="What could stand here">
    {#each offers as offer, index (offer)}
        <button
            type="button"
            id="{id}-{index}"
            class="option"
            role="option"
            tabindex="-1"
            aria-selected={index === chosen}
            onmousedown={(event) => {
                event.preventDefault();
                ontake(offer);
            }}>{offer}</button
        >
    {/each}
</div>
