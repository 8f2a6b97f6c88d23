<script lang="ts">
    import type { AnyDocument } from '../../state/document.svelte';
    import { put, split, type Json } from '../../state/pointer';
    import Choose from '../Choose.svelte';
    import type { Word } from '../words';
    import { choicesOf, isThere, optionsOf, take } from './choices';

    /* Chooses one of what the server offers for a word, or several. */
    type Props = { document: AnyDocument; word: Word; onclose: () => void };
    let { document: page, word, onclose }: Props = $props();
    const at = $derived(word.at ?? '');
    const choices = choicesOf(
        () => page,
        () => word,
    );
    const offers = $derived(choices.data?.offers ?? []);
    const many = $derived(word.editor?.many === true);
    const chosen = $derived.by(() => {
        const there = (page.at(at) ?? []) as Json[];
        return offers.flatMap((offer, index) =>
            (many ? Array.isArray(there) && there.includes(offer.value as Json) : isThere(page, at, offer)) ? [`:${index}`] : [],
        );
    });

    function choose(keys: string[]) {
        const taken = keys.map((key) => offers[Number(key.slice(1))]);
        if (many) {
            const values = taken.map((offer) => (offer?.value ?? null) as Json);
            if (JSON.stringify(values) !== JSON.stringify(page.at(at) ?? []))
                void page.edit((file) => {
                    put(file, at, values.length ? values : undefined);
                    for (const key of word.editor?.clears ?? []) put(file, `${split(at)[0]}/${key}`, undefined);
                });
        } else void take(page, at, taken[0]);
        onclose();
    }
</script>

{#if choices.data}
    <Choose title={word.editor?.label ?? ''} options={optionsOf(offers)} {chosen} {many} onchoose={choose} {onclose} />
{:else}
    <p class="w-[320px] p-4 text-[13px] text-ink-3">Looking…</p>
{/if}
